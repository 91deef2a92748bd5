using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace PatientPawl.Web.Tests;

/// <summary>A workshop's wrenches are its own, and each is what its certificates say.</summary>
public sealed class WrenchTests
{
    internal static JsonObject Wrench(string id = "H1", double top = 200) => new()
    {
        ["id"] = id,
        ["name"] = "Half-inch click",
        ["maximumNm"] = top,
        ["incrementNm"] = 1,
        ["gripLengthMm"] = 400,
        ["type"] = "setting",
        ["calibratedUntil"] = "2020-01-01",
    };

    internal static JsonObject Certificate(int daysAgo, double found, double left) => new()
    {
        ["number"] = $"C-{daysAgo}",
        ["on"] = Core.Figure.Date(DateOnly.FromDateTime(DateTime.Now).AddDays(-daysAgo)),
        ["until"] = Core.Figure.Date(DateOnly.FromDateTime(DateTime.Now).AddDays(365 - daysAgo)),
        ["uncertaintyPercent"] = 0.5,
        ["points"] = new JsonArray(new JsonObject { ["setNm"] = 100, ["asFoundNm"] = found, ["asLeftNm"] = left }),
    };

    [Fact]
    public async Task A_new_workshop_has_no_wrench_that_nobody_certified_and_its_lead_brings_in_its_own()
    {
        await using var shop = await Workshop.Open(demo: false);
        (await shop.Client.PostAsJsonAsync("/api/workshop/first-lead", new { workshop = "Own", name = "Una Pike", pin = "4711" }))
            .EnsureSuccessStatusCode();
        (await shop.Client.GetFromJsonAsync<JsonArray>("/api/workshop/wrenches"))!.ShouldBeEmpty();
        (await shop.Client.PostAsJsonAsync("/api/workshop/wrenches", Wrench())).EnsureSuccessStatusCode();
        async Task<JsonNode> Kept() => (await shop.Client.GetFromJsonAsync<JsonArray>("/api/workshop/wrenches"))!.Single()!;
        ((double)(await Kept())["permissibleDeviation"]!).ShouldBe(0.04);

        // Left 0.5 % high a year ago, found 1.5 % high now: it drifts, and is reckoned with what was left, the doubt and the drift.
        (await shop.Client.PostAsJsonAsync("/api/workshop/wrenches/H1/certificates", Certificate(365, 100, 100 / 1.005)))
            .EnsureSuccessStatusCode();
        (await shop.Client.PostAsJsonAsync("/api/workshop/wrenches/H1/certificates", Certificate(0, 100 / 1.015, 100)))
            .EnsureSuccessStatusCode();
        var kept = await Kept();
        ((double)kept["permissibleDeviation"]!).ShouldBe(0.015, 1e-6);
        kept["calibratedUntil"]!.ToString().ShouldBe(Core.Figure.Date(DateOnly.FromDateTime(DateTime.Now).AddDays(365)));
        var says = (await shop.Client.GetFromJsonAsync<JsonArray>("/api/workshop/wrenches/certificates"))!.Single()!["says"]!;
        ((double)says["driftPercentAYear"]!).ShouldBe(1, 0.01);

        // The laboratory's paper is kept as it came; what is none is refused.
        var today = Core.Figure.Date(DateOnly.FromDateTime(DateTime.Now));
        var paper = $"/api/workshop/wrenches/H1/certificates/{today}/file";
        (await shop.Client.GetAsync(paper)).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        async Task<HttpStatusCode> Send(string text)
        {
            var with = Certificate(0, 100 / 1.015, 100);
            with["file"] = Convert.ToBase64String(System.Text.Encoding.ASCII.GetBytes(text));
            return (await shop.Client.PostAsJsonAsync("/api/workshop/wrenches/H1/certificates", with)).StatusCode;
        }

        (await Send("<html>")).ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await Send("%PDF-1.7 as it came")).ShouldBe(HttpStatusCode.OK);
        (await shop.Client.GetStringAsync(paper)).ShouldBe("%PDF-1.7 as it came");
        (await shop.Another().GetAsync(paper)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);

        // What is left outside its class is used no more.
        (await shop.Client.PostAsJsonAsync("/api/workshop/wrenches/H1/certificates", Certificate(0, 90, 94))).EnsureSuccessStatusCode();
        (await Kept())["calibratedUntil"]!.ToString().ShouldBe(Core.Figure.Date(DateOnly.FromDateTime(DateTime.Now).AddDays(-1)));
        // An older one is none to go by, and one of no known wrench is refused.
        (await shop.Client.PostAsJsonAsync("/api/workshop/wrenches/H1/certificates", Certificate(20, 100, 100))).StatusCode
            .ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await shop.Client.PostAsJsonAsync("/api/workshop/wrenches/H9/certificates", Certificate(0, 100, 100))).StatusCode
            .ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await shop.Client.PostAsJsonAsync("/api/workshop/wrenches", Wrench("H 2", 3))).StatusCode
            .ShouldBe(HttpStatusCode.UnprocessableEntity);

        (await shop.Client.DeleteAsync("/api/workshop/wrenches/H1")).EnsureSuccessStatusCode();
        (await shop.Client.GetFromJsonAsync<JsonArray>("/api/workshop/wrenches/certificates"))!.ShouldBeEmpty();
    }

    [Fact]
    public async Task Only_the_lead_says_what_a_wrench_is()
    {
        await using var shop = await Workshop.Open();
        await shop.SignIn("Sol Penhale");
        (await shop.Client.PostAsJsonAsync("/api/workshop/wrenches", Wrench())).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await shop.Client.PostAsJsonAsync("/api/workshop/wrenches/W4/certificates", Certificate(0, 100, 100))).StatusCode
            .ShouldBe(HttpStatusCode.Conflict);
        (await shop.Client.DeleteAsync("/api/workshop/wrenches/W4")).StatusCode.ShouldBe(HttpStatusCode.Conflict);
    }
}
