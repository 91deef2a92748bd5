using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace PatientPawl.Web.Tests;

/// <summary>Spec sheets out and in, as JSON and as CSV, and the questions they raise.</summary>
public sealed class SheetCsvTests(DemoShop demo) : IClassFixture<DemoShop>
{
    private readonly Workshop _shop = demo.Shop;

    private async Task<JsonNode> Read(string text, HttpStatusCode wanted = HttpStatusCode.OK)
    {
        await _shop.SignIn();
        var answer = await _shop.Client.PostAsJsonAsync("/api/spec-sheets/csv/read", new JsonObject { ["text"] = text });
        answer.StatusCode.ShouldBe(wanted);
        return JsonNode.Parse(await answer.Content.ReadAsStringAsync())!;
    }

    [Fact]
    public async Task Every_sheet_of_the_workshop_goes_out_as_csv_and_comes_in_the_same()
    {
        await _shop.SignIn();
        foreach (var sheet in (await _shop.Client.GetFromJsonAsync<JsonNode>("/api/spec-sheets"))!.AsArray())
        {
            var code = sheet!["code"]!.ToString();
            var read = await Read(await _shop.Client.GetStringAsync($"/api/spec-sheets/{code}/csv"));
            read["lines"]!.AsArray().ShouldAllBe(l => (bool)l!["taken"]!);
            read["errors"]!.AsArray().ShouldBeEmpty();
            var json = JsonNode.Parse(await _shop.Client.GetStringAsync($"/api/spec-sheets/{code}/json"))!;
            JsonNode.DeepEquals(json, sheet).ShouldBeTrue();
            // Lists that are empty and lists that are not given mean the same.
            JsonNode.DeepEquals(Plain(read["sheet"]!), Plain(json)).ShouldBeTrue($"{code}: {read["sheet"]!.ToJsonString()} against {json.ToJsonString()}");
        }
    }

    [Theory]
    [InlineData("=HYPERLINK(\"http://elsewhere.example\")")]
    [InlineData("+44 depot copy")]
    [InlineData("-10 degrees leaflet")]
    [InlineData("@depot")]
    [InlineData("'=typed so")]
    [InlineData("''=typed so")]
    [InlineData("'tis plain")]
    public async Task A_text_that_a_spreadsheet_takes_for_a_formula_goes_out_harmless_and_comes_back_as_it_was(string source)
    {
        await _shop.SignIn();
        var sheet = (await _shop.Client.GetFromJsonAsync<JsonNode>("/api/spec-sheets"))!.AsArray()[0]!.DeepClone();
        (sheet["code"], sheet["source"]) = ("CSV-1", source);
        (await _shop.Client.PostAsJsonAsync("/api/spec-sheets", sheet)).EnsureSuccessStatusCode();
        var csv = await _shop.Client.GetStringAsync("/api/spec-sheets/CSV-1/csv");
        var cell = csv.Split("\r\n").Single(l => l.StartsWith("source,", StringComparison.Ordinal))["source,".Length..].TrimStart('"');
        "=+-@".ShouldNotContain(cell[..1]);
        (await Read(csv))["sheet"]!["source"]!.ToString().ShouldBe(source);
    }

    private static JsonNode Plain(JsonNode node)
    {
        var copy = node.DeepClone().AsObject();
        if (copy["fittings"] is JsonArray { Count: 0 }) copy["fittings"] = null;
        foreach (var list in new[] { "inCar", "inCarClose" })
            if (copy["electric"]?[list] is JsonArray { Count: 0 }) copy["electric"]![list] = null;
        return copy;
    }

    [Theory]
    [InlineData("code,X\n", "no field", false)]
    [InlineData("field,value\nrotor.newThicknessMm,wide", "not a plain figure", true)]
    [InlineData("field,value\nrotor.hasScrews,perhaps", "yes or no", true)]
    [InlineData("field,value\ncolour,red", "no field of a spec sheet", true)]
    [InlineData("field,value\ncode,A\ncode,B", "stands twice", true)]
    [InlineData("field,value\ntorques.3.lowNm,30", "numbered from 0", true)]
    public async Task Every_line_that_is_not_understood_says_why_and_nothing_is_kept(string text, string says, bool heading)
    {
        if (!heading)
        {
            await Read(text, HttpStatusCode.UnprocessableEntity);
            return;
        }

        var read = await Read(text);
        read["sheet"].ShouldBeNull();
        read["lines"]!.AsArray().Last(l => !(bool)l!["taken"]!)!["says"]!.ToString().ShouldContain(says);
        read["errors"]!.AsArray().ShouldNotBeEmpty("the sheet is not whole");
    }

    [Fact]
    public async Task A_decimal_comma_is_understood_where_the_comma_does_not_part()
    {
        await _shop.SignIn();
        var csv = (await _shop.Client.GetStringAsync("/api/spec-sheets/CT-1/csv")).Replace(',', ';').Replace("piston.leadMm;0.8", "piston.leadMm;0,85");
        ((double)(await Read(csv))["sheet"]!["piston"]!["leadMm"]!).ShouldBe(0.85);
    }

    [Fact]
    public async Task Slips_are_questions_defaults_are_named_and_impossible_figures_offer_inches()
    {
        await _shop.SignIn();
        var sheet = JsonNode.Parse(await _shop.Client.GetStringAsync("/api/spec-sheets/BT-3/json"))!;
        async Task<JsonNode> Look(HttpStatusCode wanted = HttpStatusCode.OK)
        {
            var answer = await _shop.Client.PostAsJsonAsync("/api/spec-sheets/look", sheet);
            answer.StatusCode.ShouldBe(wanted);
            return JsonNode.Parse(await answer.Content.ReadAsStringAsync())!;
        }

        (await Look()).AsArray().Where(q => (bool)q!["isDefault"]!).Select(q => q!["field"]!.ToString()).ShouldContain("pads.minimumLiningMm");
        sheet["torques"]![0]!["lowNm"] = 94;
        sheet["torques"]![0]!["highNm"] = null;
        var questions = (await Look()).AsArray().Where(q => !(bool)q!["isDefault"]!).Select(q => q!["says"]!.ToString()).ToList();
        questions.ShouldContain(q => q.Contains("high for a slide-pin bolt"));
        questions.ShouldContain(q => q.Contains("was one copied for the other"));
        sheet["rotor"]!["newThicknessMm"] = 0.472;
        (await Look(HttpStatusCode.UnprocessableEntity))["errors"]![0]!["message"]!.ToString().ShouldContain("If it is in inches, it is 11.99 mm");
        (await _shop.Client.GetAsync("/api/spec-sheets/NONE/csv")).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }
}
