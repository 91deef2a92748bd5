using System.Net;
using System.Net.Http.Json;
using System.Security.Claims;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Authentication;
using Microsoft.Extensions.DependencyInjection;
using PatientPawl.Web.Workshop;

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
    public async Task Wrong_pins_cost_the_device_a_delay_that_grows_and_lock_nobodys_name()
    {
        await using var shop = await Workshop.Open();
        var library = shop.Services.GetRequiredService<Data.Library>();
        var clock = new Clock();
        var signIn = new SignIn(library, shop.Services.GetRequiredService<Microsoft.AspNetCore.Identity.IPasswordHasher<Data.Technician>>(), clock);
        var tor = library.Technicians().First(t => t.Name == "Tor Aske").Id;
        for (var i = 0; i < SignIn.Free; i++) Should.Throw<Core.InputException>(() => signIn.Check(tor, "0000", "eve"));
        foreach (var wait in new[] { 2, 4, 8, 16 })
        {
            Should.Throw<Core.InputException>(() => signIn.Check(tor, "0000", "eve"));
            Should.Throw<TooManySlipsException>(() => signIn.Check(tor, "2580", "eve")).Wait.ShouldBe(TimeSpan.FromSeconds(wait));
            // Nobody else waits for it, and Tor at his own device does not either.
            signIn.Check(tor, "2580", "tor").Name.ShouldBe("Tor Aske");
            clock.Now += TimeSpan.FromSeconds(wait);
        }

        signIn.Check(tor, "2580", "eve").Id.ShouldBe(tor);
        // Over HTTP it is 429 in a sentence, with no minutes from another century.
        for (var i = 0; i <= SignIn.Free; i++) await shop.Client.PostAsJsonAsync("/api/session", new { technicianId = tor, pin = "0000" });
        var answer = await shop.Client.PostAsJsonAsync("/api/session", new { technicianId = tor, pin = "2580" });
        answer.StatusCode.ShouldBe(HttpStatusCode.TooManyRequests);
        (await Workshop.Problem(answer))["title"]!.ToString().ShouldMatch("^Too many wrong PINs from this device: try again in [12] seconds?\\.$");
    }

    private sealed class Clock : TimeProvider
    {
        public DateTimeOffset Now { get; set; } = new(2031, 4, 9, 8, 0, 0, TimeSpan.Zero);
        public override DateTimeOffset GetUtcNow() => Now;
    }

    [Fact]
    public async Task A_copy_of_a_cookie_signs_nobody_in_once_its_owner_has_signed_out()
    {
        await using var shop = await Workshop.Open();
        var session = await shop.Client.GetFromJsonAsync<JsonNode>("/api/session");
        var answer = await shop.Client.PostAsJsonAsync("/api/session", new { technicianId = session!["technicians"]![0]!["id"]!.ToString(), pin = "2580" });
        var cookie = answer.Headers.GetValues("Set-Cookie").Single().Split(';')[0];
        using var bare = new HttpClient(new SocketsHttpHandler { UseCookies = false }) { BaseAddress = shop.Client.BaseAddress };
        async Task<HttpStatusCode> Board()
        {
            using var request = new HttpRequestMessage(HttpMethod.Get, "/api/board");
            request.Headers.Add("Cookie", cookie);
            return (await bare.SendAsync(request)).StatusCode;
        }

        (await Board()).ShouldBe(HttpStatusCode.OK);
        (await shop.Client.DeleteAsync("/api/session")).EnsureSuccessStatusCode();
        (await Board()).ShouldBe(HttpStatusCode.Unauthorized);
    }

    [Theory]
    [InlineData("0000")]
    [InlineData("1234")]
    [InlineData("9876")]
    [InlineData("77777777")]
    public async Task A_pin_that_anybody_tries_first_is_asked_again(string pin)
    {
        await using var shop = await Workshop.Open();
        await shop.SignIn();
        (await Workshop.Problem(await shop.Client.PostAsJsonAsync("/api/technicians", new { name = "Una Pike", pin, isLead = false })))["title"]!.ToString().ShouldBe("That PIN is the first that anybody tries: choose another.");
    }

    [Fact]
    public async Task One_changes_ones_own_pin_with_the_old_one_the_lead_anybodys_and_who_left_signs_in_no_more_but_stays_in_the_records()
    {
        await using var shop = await Workshop.Open();
        var tor = (await shop.SignIn("Tor Aske"))["id"]!.ToString();
        var ines = (await shop.Client.GetFromJsonAsync<JsonNode>("/api/session"))!["technicians"]!.AsArray().First(t => t!["name"]!.ToString() == "Ines Marrow")!["id"]!.ToString();
        (await shop.Client.PostAsJsonAsync($"/api/technicians/{tor}/pin", new { oldPin = "9999", newPin = "4711" })).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await shop.Client.PostAsJsonAsync($"/api/technicians/{ines}/pin", new { oldPin = (string?)null, newPin = "4711" })).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await shop.Client.PostAsJsonAsync($"/api/technicians/{ines}/left", new { })).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await shop.Client.PostAsJsonAsync($"/api/technicians/{tor}/pin", new { oldPin = "2580", newPin = "4711" })).EnsureSuccessStatusCode();
        // Every session of that person has ended with the old PIN.
        (await shop.Client.GetAsync("/api/board")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);

        var lead = (await shop.SignIn())["id"]!.ToString();
        (await Workshop.Problem(await shop.Client.PostAsJsonAsync($"/api/technicians/{lead}/left", new { })))["title"]!.ToString().ShouldBe("The last lead does not leave.");
        (await shop.Client.PostAsJsonAsync($"/api/technicians/{ines}/pin", new { oldPin = (string?)null, newPin = "4711" })).EnsureSuccessStatusCode();
        (await shop.Client.PostAsJsonAsync($"/api/technicians/{ines}/left", new { })).EnsureSuccessStatusCode();
        (await shop.Client.GetFromJsonAsync<JsonNode>("/api/session"))!["technicians"]!.AsArray().Select(t => t!["name"]!.ToString()).ShouldNotContain("Ines Marrow");
        (await shop.Another().PostAsJsonAsync("/api/session", new { technicianId = ines, pin = "4711" })).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await shop.Client.GetStringAsync($"/api/jobs/{await shop.JobInBay(2)}/record")).ShouldContain("Ines Marrow");
    }

    [Fact]
    public async Task A_name_that_points_here_from_elsewhere_is_not_answered_and_what_people_wrote_is_not_kept_by_a_browser()
    {
        await using var shop = await Workshop.Open();
        using var request = new HttpRequestMessage(HttpMethod.Get, "/api/session");
        request.Headers.Host = "rebound.example";
        (await shop.Client.SendAsync(request)).StatusCode.ShouldBe(HttpStatusCode.MisdirectedRequest);
        (await shop.Client.GetAsync("/api/session")).Headers.CacheControl!.NoStore.ShouldBeTrue();
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

    [Fact]
    public void A_cookie_is_taken_apart_once_and_each_request_has_a_ticket_of_its_own()
    {
        var sealing = new Counting();
        var tickets = new KnownTickets(sealing);
        var first = tickets.Unprotect("cookie")!;
        first.Properties.ExpiresUtc = DateTimeOffset.UnixEpoch;
        first.Principal.AddIdentity(new());
        var again = tickets.Unprotect("cookie")!;
        sealing.Opened.ShouldBe(1);
        again.Properties.ExpiresUtc.ShouldBeNull();
        again.Principal.Identities.Count().ShouldBe(1);
        // What cannot be opened is tried each time, and another purpose is another cookie.
        tickets.Unprotect("forged").ShouldBeNull();
        tickets.Unprotect("forged").ShouldBeNull();
        tickets.Unprotect("cookie", "another purpose").ShouldNotBeNull();
        sealing.Opened.ShouldBe(4);
    }

    private sealed class Counting : ISecureDataFormat<AuthenticationTicket>
    {
        public int Opened { get; private set; }

        public string Protect(AuthenticationTicket data) => "cookie";

        public string Protect(AuthenticationTicket data, string? purpose) => "cookie";

        public AuthenticationTicket? Unprotect(string? protectedText) => Unprotect(protectedText, null);

        public AuthenticationTicket? Unprotect(string? protectedText, string? purpose)
        {
            Opened++;
            return protectedText == "cookie" ? new(new(new ClaimsIdentity("test")), "test") : null;
        }
    }
}
