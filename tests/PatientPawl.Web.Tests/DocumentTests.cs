using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using PatientPawl.Core.Jobs;
using PatientPawl.Web.Documents;
using UglyToad.PdfPig;

namespace PatientPawl.Web.Tests;

/// <summary>The record as a document says the same on every page that it is put on.</summary>
public sealed partial class DocumentTests(DemoShop demo) : IClassFixture<DemoShop>
{
    private readonly Workshop _shop = demo.Shop;

    [GeneratedRegex(@"\s+")]
    private static partial Regex Blank();

    [GeneratedRegex("<[^>]+>")]
    private static partial Regex Tag();

    // A line may break anywhere and a cell stands beside another: what is compared is the letters of a sentence, in their order.
    private static string Close(string text) => Blank().Replace(text, "");

    private static IEnumerable<string> Says(JsonNode document) =>
    [
        document["title"]!.ToString(), document["workshop"]!.ToString(), document["foot"]!.ToString(),
        .. document["notes"]!.AsArray().Select(n => n!["says"]!.ToString()),
        .. document["parts"]!.AsArray().SelectMany(p => Part(p!)),
    ];

    private static IEnumerable<string> Part(JsonNode part) =>
    [
        part["heading"]!.ToString(), .. part["lines"]!.AsArray().Select(l => l!.ToString()),
        .. part["facts"]!.AsArray().SelectMany(f => (string[])[f!["name"]!.ToString(), f["says"]!.ToString()]),
        .. part["table"]?["columns"]!.AsArray().Select(c => c!["heading"]!.ToString()) ?? [],
        .. part["table"]?["rows"]!.AsArray().SelectMany(r => r!["cells"]!.AsArray().Select(c => c!.ToString())) ?? [],
    ];

    private async Task<string> JobOf(string plate) =>
        (await _shop.Client.GetFromJsonAsync<JsonNode>("/api/board"))!.AsArray().First(c =>
            c!["vehicle"]!["plate"]!.ToString() == plate)!["jobId"]!.ToString();

    private async Task<JsonNode> Document(string id) => (await _shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{id}/record/document"))!;

    [Theory]
    [InlineData("a4", 595, 842)]
    [InlineData("letter", 612, 792)]
    public async Task The_pdf_holds_every_word_of_the_record_on_its_paper_with_its_typeface_title_and_language(string paper, double width,
        double height)
    {
        await _shop.SignIn();
        var id = await JobOf("GNT 420");
        var document = await Document(id);
        var bytes = await _shop.Client.GetByteArrayAsync($"/api/jobs/{id}/record.pdf?paper={paper}");
        // Read by another library than the one that wrote it.
        using var pdf = PdfDocument.Open(bytes);
        pdf.Information.Title.ShouldBe(document["title"]!.ToString());
        pdf.Structure.Catalog.CatalogDictionary.Data["Lang"].ToString()!.ShouldContain("en-GB");
        var pages = pdf.GetPages().ToArray();
        pages.Length.ShouldBeGreaterThan(1);
        pages.ShouldAllBe(p => Math.Abs(p.Width - width) < 1 && Math.Abs(p.Height - height) < 1);
        pages.SelectMany(p => p.Letters).Select(l => l.FontName).Distinct().ShouldAllBe(f => f!.Contains("DejaVu"));
        // Cells stand beside each other, so that words are looked for line by line of their own cell: by their letters.
        var words = string.Concat(pages.Select(p => Close(string.Concat(p.Letters.Select(l => l.Value)))));
        foreach (var says in Says(document)) words.ShouldContain(Close(says));
        for (var i = 0; i < pages.Length; i++) words.ShouldContain($"page{i + 1}of{pages.Length}");
    }

    [Fact]
    public async Task The_html_file_holds_every_word_and_fetches_nothing()
    {
        await _shop.SignIn();
        var id = await JobOf("GNT 420");
        var html = await _shop.Client.GetStringAsync($"/api/jobs/{id}/record.html");
        var words = Close(WebUtility.HtmlDecode(Tag().Replace(html[html.IndexOf("<body>", StringComparison.Ordinal)..], "")));
        foreach (var says in Says(await Document(id))) words.ShouldContain(Close(says));
        html.ShouldContain("default-src 'none'");
        html.ShouldNotContain("<script");
        Regex.Count(html, "(?:src|href)=\"(?!data:)").ShouldBe(0);
    }

    [Fact]
    public async Task Photos_stand_in_the_pdf_and_in_the_html_file_and_words_of_any_script_are_kept_or_boxed()
    {
        await _shop.SignIn();
        var id = await _shop.NewJob(bay: 41);
        var caption = "Łüftung <b>Ωmega</b> тормоз 車";
        (await _shop.Client.PostAsJsonAsync($"/api/jobs/{id}/photos", PhotoTests.Photo(PhotoTests.FourFields(), caption)))
            .EnsureSuccessStatusCode();
        var html = await _shop.Client.GetStringAsync($"/api/jobs/{id}/record.html");
        html.ShouldContain("src=\"data:image/jpeg;base64,");
        WebUtility.HtmlDecode(html).ShouldContain(caption);
        html.ShouldNotContain("<b>Ωmega");
        using var pdf = PdfDocument.Open(await _shop.Client.GetByteArrayAsync($"/api/jobs/{id}/record.pdf"));
        pdf.GetPages().Sum(p => p.GetImages().Count()).ShouldBe(1);
        // The typeface has no Chinese signs: a box stands for it, and the job's own file has the word.
        Close(string.Concat(pdf.GetPages().SelectMany(p => p.Letters).Select(l => l.Value))).ShouldContain("Łüftung<b>Ωmega</b>тормоз□");
    }

    [Fact]
    public async Task Many_who_ask_at_once_get_the_same_pages()
    {
        await _shop.SignIn();
        var id = await JobOf("GNT 420");
        var asked = await Task.WhenAll(Enumerable.Range(0, 12).Select(i =>
            _shop.Client.GetByteArrayAsync($"/api/jobs/{id}/record.pdf?paper={(i % 2 == 0 ? "a4" : "letter")}")));
        asked.Select(bytes =>
        {
            using var pdf = PdfDocument.Open(bytes);
            return string.Concat(pdf.GetPages().SelectMany(p => p.Letters).Select(l => l.Value));
        }).Select((text, i) => (text, i % 2)).Distinct().Count().ShouldBe(2);
    }

    [Fact]
    public void A_row_higher_than_a_page_goes_on_over_the_next_with_every_word_and_a_picture_that_is_gone_is_said_by_both()
    {
        string[] words = [.. Enumerable.Range(0, 4000).Select(i => $"w{i}.")];
        DocumentTable table = new([new("Long", 1), new("Short", 1)],
            [new([string.Join(' ', words), "beside it"]), new(["after", "it"], Core.Measuring.Verdict.Outside)]);
        DocumentPhoto photo = new("0", 10, 10, "Crack", "left, Kit");
        RecordDocument document = new("Title", "Shop", [], [new("Log", [], [], table, [photo])], "Foot");
        using var pdf = PdfDocument.Open(RecordPdf.Write(document, _ => null, "http://x/jobs/1", PaperSize.A4));
        var pages = pdf.GetPages().ToArray();
        pages.Length.ShouldBeGreaterThan(2);
        // Nothing runs into the foot: it alone stands under the last 66 points.
        pages.ShouldAllBe(p => p.Letters.Where(l => l.StartBaseLine.Y < 40).Select(l => l.Value).First() == "S");
        var text = Close(string.Concat(pages.SelectMany(p => p.Letters).Select(l => l.Value)));
        foreach (var word in words) text.ShouldContain(word);
        text.ShouldContain("afterit");
        text.ShouldContain(Close(photo.Gone));
        RecordHtml.Write(document, _ => null, "http://x/jobs/1").ShouldContain(photo.Gone);
    }

    [Fact]
    public async Task Another_paper_is_refused_and_nobody_reads_a_record_without_signing_in()
    {
        await _shop.SignIn();
        var id = await JobOf("GNT 420");
        var refused = await _shop.Client.GetAsync($"/api/jobs/{id}/record.pdf?paper=a5");
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await Workshop.Problem(refused)).ToJsonString().ShouldContain("A record is printed on A4 or Letter.");
        using var stranger = _shop.Another();
        foreach (var file in new[] { "record.pdf", "record.html", "record/document", "address.svg", "torques.csv" })
            (await stranger.GetAsync($"/api/jobs/{id}/{file}")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized, file);
    }

    [Fact]
    public async Task A_record_that_was_changed_past_the_program_says_so_on_every_page_it_is_put_on()
    {
        await using var shop = await Workshop.Open();
        await shop.SignIn();
        var id = await shop.JobInBay(2);
        Workshop.PastTheProgram(shop.Folder, $"update event_seal set seal = x'00' where job_id = '{id}' and seq = 2");
        var html = await shop.Client.GetStringAsync($"/api/jobs/{id}/record.html");
        html.ShouldContain("<p class=\"warns\">Event 2 does not match its seal");
    }

    [Fact]
    public async Task The_torques_of_a_job_go_out_as_csv_and_come_back_as_they_were_signed()
    {
        await _shop.SignIn();
        var id = await JobOf("GNT 420");
        var csv = await _shop.Client.GetStringAsync($"/api/jobs/{id}/torques.csv");
        var back = JsonNode.Parse(await (await _shop.Client.PostAsJsonAsync("/api/torques/csv/read",
            new { text = csv })).Content.ReadAsStringAsync())!;
        back["lines"]!.AsArray().ShouldAllBe(l => (bool)l!["taken"]!);
        var record = (await _shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{id}/record"))!["torques"]!.AsArray();
        back["torques"]!.AsArray().Count.ShouldBe(record.Count);
        record.Count.ShouldBeGreaterThan(5);
        foreach (var (signed, read) in record.Zip(back["torques"]!.AsArray()))
        {
            signed!["wanted"]!.ToString().ShouldStartWith($"{Core.Figure.Of((double)read!["wantedNm"]!, 1)} N m");
            read["by"]!.ToString().ShouldBe(signed["by"]!.ToString());
        }

        TorqueCsv.Write([.. TorqueCsv.Read(csv).Torques]).ShouldBe(csv);
    }

    [Theory]
    [InlineData("side", "middle", "is not left, right or car")]
    [InlineData("fastener", "rivet", "is no fastener that is known here")]
    [InlineData("wanted_nm", "", "wanted_nm \"nothing\" is missing")]
    [InlineData("set_nm", "1e9", "is not a figure from 0 to 1000")]
    [InlineData("index", "0", "is not a figure from 1 to 10")]
    [InlineData("verified", "maybe", "is neither yes nor no")]
    [InlineData("signed_at", "noon", "is no day and time")]
    public void A_torque_line_that_is_wrong_is_said_with_its_field_and_the_others_are_read(string field, string value, string says)
    {
        string[] heading = [.. "side,fastener,index,wanted_nm,then_angle_deg,set_nm,applied_low_nm,applied_high_nm,wrench,verified,hand_tight,signed_by,signed_at".Split(',')];
        string[] good = ["left", "bracket", "1", "105", "", "105", "100.8", "109.2", "W-1", "yes", "no", "Ines Marrow",
            "2026-11-03T10:00:00+00:00"];
        var bad = good.ToArray();
        bad[Array.IndexOf(heading, field)] = value;
        var read = TorqueCsv.Read(string.Join("\r\n", new[] { heading, bad, good }.Select(l => string.Join(",", l))));
        read.Torques.Count.ShouldBe(1);
        read.Lines[0].Taken.ShouldBeFalse();
        read.Lines[0].Says.ShouldContain(says);
        read.Lines[1].Taken.ShouldBeTrue();
    }
}
