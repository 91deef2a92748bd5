using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using PatientPawl.Data;
using SkiaSharp;

namespace PatientPawl.Web.Tests;

public class PhotoTests
{
    private static string[] Upright => ["red", "green", "blue", "white"];

    /// <summary>Four fields, read left to right and top to bottom: which of them stands where tells how the picture was turned.</summary>
    internal static byte[] FourFields(int width = 64, int height = 48, SKEncodedImageFormat format = SKEncodedImageFormat.Jpeg)
    {
        using var bitmap = new SKBitmap(width, height);
        using var canvas = new SKCanvas(bitmap);
        var (w, h) = (width / 2f, height / 2f);
        foreach (var (colour, i) in new[] { SKColors.Red, SKColors.Lime, SKColors.Blue, SKColors.White }.Select((c, i) => (c, i)))
        {
            using var paint = new SKPaint { Color = colour };
            canvas.DrawRect(i % 2 * w, i / 2 * h, w, h, paint);
        }

        using var data = bitmap.Encode(format, 95);
        return data.ToArray();
    }

    private static string[] Fields(byte[] jpeg)
    {
        using var bitmap = SKBitmap.Decode(jpeg);
        return [.. new[] { (0.25, 0.25), (0.75, 0.25), (0.25, 0.75), (0.75, 0.75) }.Select(p => Name(bitmap.GetPixel((int)(bitmap.Width * p.Item1), (int)(bitmap.Height * p.Item2))))];
        static string Name(SKColor c) => (c.Red > 127, c.Green > 127, c.Blue > 127) switch { (true, false, false) => "red", (false, true, false) => "green", (false, false, true) => "blue", (true, true, true) => "white", _ => c.ToString() };
    }

    // Exif 2.32: APP1, "Exif", a little-endian TIFF with one directory: 0x0112 orientation, and a maker's words after it.
    private static byte[] WithExif(byte[] jpeg, ushort orientation)
    {
        byte[] tiff = [.. "II"u8, 42, 0, 8, 0, 0, 0, 1, 0, 0x12, 1, 3, 0, 1, 0, 0, 0, (byte)orientation, 0, 0, 0, 0, 0, 0, 0, .. "taken at 59.91 N 10.75 E"u8];
        byte[] body = [.. "Exif\0\0"u8, .. tiff];
        return [.. jpeg[..2], 0xFF, 0xE1, (byte)((body.Length + 2) >> 8), (byte)(body.Length + 2), .. body, .. jpeg[2..]];
    }

    internal static JsonObject Photo(byte[] content, string caption = "crack in the lining", string? side = "left", string? of = null) => new()
    {
        ["eventId"] = Guid.NewGuid().ToString(),
        ["occurredAt"] = DateTimeOffset.Now.ToString("O"),
        ["side"] = side,
        ["of"] = of,
        ["caption"] = caption,
        ["content"] = Convert.ToBase64String(content),
    };

    private static async Task<JsonNode> Record(Workshop shop, string id) => (await shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{id}/record"))!;

    private static async Task<(Workshop Shop, string Id)> Begun()
    {
        var shop = await Workshop.Open();
        await shop.SignIn();
        return (shop, await shop.JobInBay(2));
    }

    private static async Task<byte[]> Kept(Workshop shop, string id, byte[] sent)
    {
        var answer = await shop.Client.PostAsJsonAsync($"/api/jobs/{id}/photos", Photo(sent));
        answer.StatusCode.ShouldBe(HttpStatusCode.OK, await answer.Content.ReadAsStringAsync());
        var sha = (await Record(shop, id))["photos"]!.AsArray()[^1]!["sha256"]!.ToString();
        return await shop.Client.GetByteArrayAsync($"/api/jobs/{id}/photos/{sha}");
    }

    // Exif 2.32, table "orientation": what the camera stored, and what stands where once it is held upright.
    [Theory]
    [InlineData(1, new[] { "red", "green", "blue", "white" })]
    [InlineData(2, new[] { "green", "red", "white", "blue" })]
    [InlineData(3, new[] { "white", "blue", "green", "red" })]
    [InlineData(4, new[] { "blue", "white", "red", "green" })]
    [InlineData(5, new[] { "red", "blue", "green", "white" })]
    [InlineData(6, new[] { "blue", "red", "white", "green" })]
    [InlineData(7, new[] { "white", "green", "blue", "red" })]
    [InlineData(8, new[] { "green", "white", "red", "blue" })]
    public async Task A_photo_is_kept_upright_and_with_nothing_in_it_but_the_picture(ushort orientation, string[] fields)
    {
        var (shop, id) = await Begun();
        await using var _ = shop;
        var kept = await Kept(shop, id, WithExif(FourFields(), orientation));
        Fields(kept).ShouldBe(fields);
        Encoding.Latin1.GetString(kept).ShouldNotContain("59.91");
        Encoding.Latin1.GetString(kept).ShouldNotContain("Exif");
    }

    [Fact]
    public async Task A_large_one_is_made_smaller_and_any_kind_becomes_one_kind()
    {
        var (shop, id) = await Begun();
        await using var _ = shop;
        foreach (var format in new[] { SKEncodedImageFormat.Jpeg, SKEncodedImageFormat.Png, SKEncodedImageFormat.Webp })
        {
            var kept = await Kept(shop, id, FourFields(4000, 3000, format));
            kept.Length.ShouldBeLessThanOrEqualTo(Picture.MostBytes);
            using var codec = SKCodec.Create(new MemoryStream(kept));
            (codec.EncodedFormat, codec.Info.Width, codec.Info.Height).ShouldBe((SKEncodedImageFormat.Jpeg, 2048, 1536));
            Fields(kept).ShouldBe(Upright);
        }

        // Noise takes the most room that a picture can take.
        using var noise = new SKBitmap(2600, 2600);
        new Random(20261128).NextBytes(noise.GetPixelSpan());
        using var png = noise.Encode(SKEncodedImageFormat.Jpeg, 95);
        (await Kept(shop, id, png.ToArray())).Length.ShouldBeLessThanOrEqualTo(Picture.MostBytes);
    }

    [Fact]
    public async Task What_is_no_picture_is_refused_in_a_sentence_and_nothing_is_stored()
    {
        var (shop, id) = await Begun();
        await using var _ = shop;
        var good = FourFields();
        async Task Refused(JsonObject photo, string says)
        {
            var answer = await shop.Client.PostAsJsonAsync($"/api/jobs/{id}/photos", photo);
            answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
            (await Workshop.Problem(answer))["title"]!.ToString().ShouldContain(says);
        }

        await Refused(Photo(Encoding.UTF8.GetBytes("a crack, honestly")), "no picture that can be read");
        await Refused(Photo(good, caption: " "), "caption");
        await Refused(Photo(good, of: Guid.NewGuid().ToString()), "no such report");
        // A header that claims a picture of four thousand million pixels: PNG's IHDR, width and height.
        var bomb = FourFields(format: SKEncodedImageFormat.Png);
        foreach (var at in new[] { 16, 20 }) (bomb[at], bomb[at + 1], bomb[at + 2], bomb[at + 3]) = (0, 0, 0xFF, 0xFF);
        await Refused(Photo(bomb), "picture");
        // Whatever bytes come: a sentence, never a failure.
        var random = new Random(4);
        for (var i = 0; i < 150; i++)
        {
            byte[] spoiled = [.. good];
            for (var k = 0; k < 20; k++) spoiled[random.Next(spoiled.Length)] = (byte)random.Next(256);
            var answer = await shop.Client.PostAsJsonAsync($"/api/jobs/{id}/photos", Photo(i % 3 == 0 ? spoiled[..random.Next(spoiled.Length)] : spoiled));
            ((int)answer.StatusCode).ShouldBeLessThan(500);
        }

    }

    [Fact]
    public async Task It_is_added_once_belongs_to_its_report_and_is_seen_by_its_job_alone()
    {
        var (shop, id) = await Begun();
        await using var _ = shop;
        var job = await shop.Job(id);
        var kind = job["sheet"]!["canFind"]![2]!.AsArray().First(c => c!["noteWanted"] is null)!;
        var found = await shop.Client.PostAsJsonAsync($"/api/jobs/{id}/findings", Workshop.Command((int)job["version"]!, ("kind", kind["kind"]!.ToString()), ("side", "right"), ("note", null)));
        found.StatusCode.ShouldBe(HttpStatusCode.OK, await found.Content.ReadAsStringAsync());
        var report = JsonNode.Parse(await found.Content.ReadAsStringAsync())!["eventId"]!.ToString();
        var photo = Photo(FourFields(), side: "left", of: report);
        var once = await (await shop.Client.PostAsJsonAsync($"/api/jobs/{id}/photos", photo)).Content.ReadAsStringAsync();
        (await (await shop.Client.PostAsJsonAsync($"/api/jobs/{id}/photos", photo)).Content.ReadAsStringAsync()).ShouldBe(once);
        var kept = (await Record(shop, id))["photos"]!.AsArray().ShouldHaveSingleItem()!;
        kept["where"]!.ToString().ShouldBe("right");
        kept["report"]!.ToString().ShouldBe(kind["name"]!.ToString());
        var sha = kept["sha256"]!.ToString();
        (await shop.Client.GetAsync($"/api/jobs/{await shop.JobInBay(3)}/photos/{sha}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await shop.Client.DeleteAsync("/api/session")).EnsureSuccessStatusCode();
        (await shop.Client.GetAsync($"/api/jobs/{id}/photos/{sha}")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
    }

    [Fact]
    public async Task It_travels_in_the_jobs_file_and_one_that_was_changed_or_left_out_is_named()
    {
        var (shop, id) = await Begun();
        await using var _ = shop;
        var kept = await Kept(shop, id, FourFields());
        var file = await shop.Client.GetStringAsync($"/api/jobs/{id}/file");
        await using var other = await Workshop.Open(demo: false);
        (await other.Client.PostAsJsonAsync("/api/workshop/first-lead", new { workshop = "Elsewhere", name = "Una Pike", pin = "4711" })).EnsureSuccessStatusCode();
        var seq = (int)(await shop.Job(id))["version"]!;
        async Task Refused(string there, string instead, string says)
        {
            file.ShouldContain(there);
            var answer = await other.Client.PostAsync("/api/jobs/import", new StringContent(file.Replace(there, instead, StringComparison.Ordinal), Encoding.UTF8, "application/json"));
            answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
            (await Workshop.Problem(answer))["title"]!.ToString().ShouldBe($"Event {seq} {says}. Nothing was stored.");
        }

        await Refused("\"attachments\":[\n{\"sha256\":\"", "\"attachments\":[\n{\"sha256\":\"another", "names a photo that is not in the file");
        await Refused(Convert.ToBase64String(kept), Convert.ToBase64String(FourFields(80, 80)), "names a photo that is not the one in the file");
        await Refused("image/jpeg", "text/html", "names a photo that is none of ours");

        (await other.Client.PostAsync("/api/jobs/import", new StringContent(file, Encoding.UTF8, "application/json"))).EnsureSuccessStatusCode();
        (await other.Client.GetStringAsync($"/api/jobs/{id}/file")).ShouldBe(file);
        (await other.Client.GetByteArrayAsync($"/api/jobs/{id}/photos/{Picture.Of(kept).Sha256}")).ShouldBe(kept);
    }

    [Fact]
    public async Task A_picture_that_was_taken_out_or_changed_past_the_program_is_told_by_its_event()
    {
        var (shop, id) = await Begun();
        await using var _ = shop;
        await Kept(shop, id, FourFields());
        var seq = (int)(await shop.Job(id))["version"]!;
        async Task<string> Says() => (await shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{id}/verified"))!["says"]!.ToString();
        (await Says()).ShouldStartWith("Verified");
        Workshop.PastTheProgram(shop.Folder, "update photo set content = x'FFD8FFE0'");
        (await Says()).ShouldBe($"Event {seq} names a photo that is not the one that was taken.");
        Workshop.PastTheProgram(shop.Folder, "delete from photo");
        (await Says()).ShouldBe($"Event {seq} names a photo that is gone.");
        // The file is written all the same; it says so itself where it is read.
        JsonNode.Parse(await shop.Client.GetStringAsync($"/api/jobs/{id}/file"))!["attachments"].ShouldBeNull();
    }
}
