using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace PatientPawl.Web.Tests;

public class SignInTests
{
    [Fact]
    public async Task The_cookie_is_http_only_and_same_site_strict()
    {
        await using var shop = await Workshop.Open();
        var session = await shop.Client.GetFromJsonAsync<JsonNode>("/api/session");
        var answer = await shop.Another().PostAsJsonAsync("/api/session", new { technicianId = session!["technicians"]![0]!["id"]!.ToString(), pin = session["demoPin"]!.ToString() });
        var cookie = answer.Headers.GetValues("Set-Cookie").Single();
        cookie.ShouldContain("httponly", Case.Insensitive);
        cookie.ShouldContain("samesite=strict", Case.Insensitive);
        answer.Headers.GetValues("Content-Security-Policy").Single().ShouldContain("default-src 'self'");
    }

    [Fact]
    public async Task Five_wrong_pins_lock_the_name_even_for_the_right_one()
    {
        await using var shop = await Workshop.Open();
        var session = await shop.Client.GetFromJsonAsync<JsonNode>("/api/session");
        var id = session!["technicians"]!.AsArray().First(t => t!["name"]!.ToString() == "Tor Aske")!["id"]!.ToString();
        for (var i = 0; i < 5; i++) (await shop.Client.PostAsJsonAsync("/api/session", new { technicianId = id, pin = "0000" })).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        var locked = await shop.Client.PostAsJsonAsync("/api/session", new { technicianId = id, pin = "2580" });
        (await Workshop.Problem(locked))["title"]!.ToString().ShouldContain("Locked");
        // Others are not locked out with them.
        await shop.SignIn();
    }

    [Fact]
    public async Task Nobody_gets_in_without_signing_in_and_benches_need_none()
    {
        await using var shop = await Workshop.Open();
        foreach (var path in new[] { "/api/board", "/api/vehicles", $"/api/jobs/{Guid.NewGuid()}" }) (await shop.Client.GetAsync(path)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await shop.Client.PostAsJsonAsync("/api/bench/vin", new { vin = "11111111111111111" })).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await shop.Client.GetAsync("/api/sources")).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task A_write_from_another_origin_is_refused()
    {
        await using var shop = await Workshop.Open();
        await shop.SignIn();
        using var request = new HttpRequestMessage(HttpMethod.Delete, "/api/session");
        request.Headers.Add("Origin", "http://elsewhere.example");
        (await shop.Client.SendAsync(request)).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
    }

    [Fact]
    public async Task Only_the_lead_sets_house_rules_adds_technicians_and_lifts_others_pawls()
    {
        await using var shop = await Workshop.Open();
        await shop.SignIn("Tor Aske");
        var rules = new { holding = "released-from-start", retractDepth = "as-far-as-needed", sides = "in-step" };
        (await shop.Client.PutAsJsonAsync("/api/workshop/house-rules", rules)).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await shop.Client.PostAsJsonAsync("/api/technicians", new { name = "Una Pike", pin = "4711", isLead = true })).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        var job = await shop.Job(await shop.JobInBay(2));
        var other = job["sheet"]!["done"]![0]!["eventId"]!.ToString();
        var lift = await shop.Client.PostAsJsonAsync($"/api/jobs/{job["id"]}/lifts", Workshop.Command((int)job["version"]!, ("target", other), ("reason", "x")));
        (await Workshop.Problem(lift))["title"]!.ToString().ShouldContain("Only the lead");

        await shop.SignIn();
        (await shop.Client.PutAsJsonAsync("/api/workshop/house-rules", rules)).EnsureSuccessStatusCode();
        (await shop.Client.PostAsJsonAsync("/api/technicians", new { name = "Una Pike", pin = "4711", isLead = false })).EnsureSuccessStatusCode();
        (await shop.Client.PostAsJsonAsync("/api/technicians", new { name = "Una Pike", pin = "4711", isLead = false })).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    [Fact]
    public async Task House_rules_go_into_jobs_opened_later_and_never_into_those_open()
    {
        await using var shop = await Workshop.Open();
        await shop.SignIn();
        var before = await shop.NewJob();
        (await shop.Client.PutAsJsonAsync("/api/workshop/house-rules", new { holding = "released-from-start", retractDepth = "as-far-as-needed", sides = "in-step" })).EnsureSuccessStatusCode();
        var after = await shop.NewJob(bay: 41);
        (await shop.Job(before))["opened"]!["rules"]!["retractDepth"]!.ToString().ShouldBe("all-the-way-home");
        (await shop.Job(after))["opened"]!["rules"]!["retractDepth"]!.ToString().ShouldBe("as-far-as-needed");
    }

    [Fact]
    public async Task The_first_visit_to_an_empty_workshop_makes_the_lead_and_only_the_first()
    {
        await using var shop = await Workshop.Open(demo: false);
        ((bool)(await shop.Client.GetFromJsonAsync<JsonNode>("/api/session"))!["firstRun"]!).ShouldBeTrue();
        (await shop.Client.PostAsJsonAsync("/api/workshop/first-lead", new { workshop = "Own", name = "Una Pike", pin = "12" })).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await shop.Client.PostAsJsonAsync("/api/workshop/first-lead", new { workshop = "Own", name = "Una Pike", pin = "4711" })).EnsureSuccessStatusCode();
        (await shop.Another().PostAsJsonAsync("/api/workshop/first-lead", new { workshop = "Mine", name = "Eve", pin = "4711" })).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        var session = (await shop.Client.GetFromJsonAsync<JsonNode>("/api/session"))!;
        ((bool)session["me"]!["isLead"]!).ShouldBeTrue();
        session["demoPin"].ShouldBeNull();
    }
}
