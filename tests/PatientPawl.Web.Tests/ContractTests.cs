using System.Text.Json;
using System.Text.Json.Nodes;
using PatientPawl.Web.Hosting;
using PatientPawl.Core.Torque;
using PatientPawl.Core.Workshop;
using PatientPawl.Data;
using UnitsNet;

namespace PatientPawl.Web.Tests;

public class ContractTests
{
    [Fact]
    public async Task The_committed_openapi_document_is_the_one_served()
    {
        await using var shop = await Workshop.Open(demo: false);
        var served = await shop.Client.GetStringAsync("/openapi/v1.json");
        var path = Path.Combine(Workshop.Repository, "web", "openapi.json");
        if (Environment.GetEnvironmentVariable("PAWL_UPDATE") == "1") await File.WriteAllTextAsync(path, served);
        (await File.ReadAllTextAsync(path)).ShouldBe(served, "web/openapi.json is stale: run PAWL_UPDATE=1 ./test web, then npm run types in web/");
    }

    [Fact]
    public async Task Numbers_are_numbers_and_carry_their_unit_in_the_name()
    {
        await using var shop = await Workshop.Open(demo: false);
        var document = JsonNode.Parse(await shop.Client.GetStringAsync("/openapi/v1.json"))!;
        var schemas = document["components"]!["schemas"]!.AsObject();
        schemas["Length"]!["type"]!.ToString().ShouldBe("number");
        schemas["TravelResult"]!["properties"]!.AsObject().Select(p => p.Key).ShouldContain("displacedMl");
        schemas["TorqueSet"]!["properties"]!.AsObject().Select(p => p.Key).ShouldContain("settingNm");
        document["paths"]!.AsObject().Count(p => p.Key.StartsWith("/api/bench/", StringComparison.Ordinal)).ShouldBeGreaterThanOrEqualTo(4);
        document.ToJsonString().ShouldNotContain("\"type\":[\"integer\",\"string\"]");
    }

    [Fact]
    public void Quantities_are_written_in_the_unit_their_name_says_and_read_back()
    {
        var foot = new Crowfoot(Length.FromCentimeters(5), Angle.FromRadians(Math.PI / 2));
        var json = JsonSerializer.Serialize(foot, PawlJson.Options);
        json.ShouldBe("{\"extensionMm\":50,\"angleFromInLineDeg\":90}");
        JsonSerializer.Deserialize<Crowfoot>(json, PawlJson.Options)!.Extension.Millimeters.ShouldBe(50);
    }

    [Theory]
    [InlineData("{\"extensionInch\":2,\"angleFromInLineDeg\":0}")]
    [InlineData("{\"extensionMm\":\"50\",\"angleFromInLineDeg\":0}")]
    [InlineData("{\"extensionMm\":1e999,\"angleFromInLineDeg\":0}")]
    [InlineData("{\"extensionMm\":50}")]
    [InlineData("{\"extensionMm\":50,\"extensionMm\":60,\"angleFromInLineDeg\":0}")]
    public void Another_unit_a_quoted_a_missing_or_a_doubled_number_is_refused(string json) =>
        Should.Throw<JsonException>(() => JsonSerializer.Deserialize<Crowfoot>(json, PawlJson.Options));

    [Fact]
    public async Task Every_source_stands_in_the_docs()
    {
        var text = await File.ReadAllTextAsync(Path.Combine(Workshop.Repository, "docs", "sources.md"));
        foreach (var source in Sources.All) text.ShouldContain($"`{source.Id}`");
    }

    [Fact]
    public async Task The_demo_shows_each_stage_and_tells_nothing_real()
    {
        await using var shop = await Workshop.Open();
        await shop.SignIn();
        var board = JsonNode.Parse(await shop.Client.GetStringAsync("/api/board"))!.AsArray();
        board.Select(b => b!["status"]!.ToString()).Distinct().Count().ShouldBeGreaterThanOrEqualTo(3);
        board.ShouldContain(b => (bool)b!["left"]!["stuck"]!);
        board.ShouldContain(b => (bool)b!["left"]!["undecided"]!);
        board.Select(b => b!["vehicle"]!["make"]!.ToString()).Distinct().ShouldBe(["Brae", "Norrin"], ignoreOrder: true);
    }

    [Fact]
    public async Task Every_operation_is_named_and_described_and_says_truly_whether_it_asks_who_is_there()
    {
        await using var shop = await Workshop.Open();
        var paths = JsonNode.Parse(await shop.Client.GetStringAsync("/openapi/v1.json"))!["paths"]!.AsObject();
        List<string> ids = [], places = [], wrong = [];
        foreach (var (path, operations) in paths)
        {
            foreach (var (method, operation) in operations!.AsObject())
            {
                ids.Add(operation!["operationId"]!.ToString());
                places.Add($"{method.ToUpperInvariant()} {path}");
                if (operation["summary"] is null || operation["description"] is null) wrong.Add($"{method} {path}: no words");
                var responses = operation["responses"]!.AsObject().Select(r => r.Key).ToArray();
                var filled = path.Replace("{id}", Guid.NewGuid().ToString(), StringComparison.Ordinal).Replace("{target}", Guid.NewGuid().ToString(), StringComparison.Ordinal).Replace("{code}", "CT-1", StringComparison.Ordinal).Replace("{bench}", "b", StringComparison.Ordinal);
                using var request = new HttpRequestMessage(new HttpMethod(method), filled);
                if (operation["requestBody"] is not null) request.Content = new StringContent("{}", System.Text.Encoding.UTF8, "application/json");
                using var answer = await shop.Another().SendAsync(request, HttpCompletionOption.ResponseHeadersRead);
                if (answer.StatusCode == System.Net.HttpStatusCode.Unauthorized != responses.Contains("401")) wrong.Add($"{method} {path}: {answer.StatusCode} to a stranger");
                if ((int)answer.StatusCode >= 400 && !responses.Contains(((int)answer.StatusCode).ToString(System.Globalization.CultureInfo.InvariantCulture))) wrong.Add($"{method} {path}: {answer.StatusCode} is not listed");
            }
        }

        wrong.ShouldBeEmpty();
        ids.ShouldBeUnique();
        places.Order(StringComparer.Ordinal).ShouldBe(ApiWords.All.Select(w => w.At).Order(StringComparer.Ordinal));
    }
}
