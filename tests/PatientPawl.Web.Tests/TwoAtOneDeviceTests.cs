using System.Net;
using System.Net.Http.Json;
using System.Security.Claims;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Http;
using Microsoft.Extensions.DependencyInjection;
using PatientPawl.Data;
using PatientPawl.Web.Workshop;

namespace PatientPawl.Web.Tests;

public class TwoAtOneDeviceTests
{
    [Fact]
    public async Task What_each_of_two_gives_is_recorded_under_their_own_name_and_nobody_elses()
    {
        await using var shop = await Workshop.Open();
        await shop.SignIn();
        var (ines, tor) = (await Who(shop, "Ines Marrow"), await Who(shop, "Tor Aske"));
        var session = await With(shop, ines, "2580");
        session["me"]!["name"]!.ToString().ShouldBe("Kit Ransome");
        session["with"]!["name"]!.ToString().ShouldBe("Ines Marrow");
        var job = await shop.JobInBay(2);
        (await Note(shop, job, "by her", ines)).EnsureSuccessStatusCode();
        (await Note(shop, job, "by him", null)).EnsureSuccessStatusCode();
        (await Workshop.Problem(await Note(shop, job, "by somebody else", tor)))["reason"]!.ToString().ShouldBe("another-person");
        var state = shop.Services.GetRequiredService<EventStore>().State(Guid.Parse(job));
        state.Log.TakeLast(2).Select(e => e.Technician).ShouldBe(["Ines Marrow", "Kit Ransome"]);
        // A third is told who is here.
        var third = await shop.Client.PostAsJsonAsync("/api/session/with", new { technicianId = tor, pin = "2580" });
        (await Workshop.Problem(third))["because"]![0]!.ToString().ShouldBe("Ines Marrow is signed in here with Kit Ransome: one of them signs out first.");
    }

    [Fact]
    public async Task Whoever_stays_keeps_the_device_and_whoever_signed_out_is_nobody_there()
    {
        await using var shop = await Workshop.Open();
        await shop.SignIn();
        var (kit, ines) = (await Who(shop, "Kit Ransome"), await Who(shop, "Ines Marrow"));
        await With(shop, ines, "2580");
        var left = (await (await shop.Client.DeleteAsync($"/api/session/with/{kit}")).Content.ReadFromJsonAsync<JsonNode>())!;
        left["me"]!["name"]!.ToString().ShouldBe("Ines Marrow");
        left["with"].ShouldBeNull();
        var job = await shop.JobInBay(2);
        (await Note(shop, job, "his, too late", kit)).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await Note(shop, job, "hers", ines)).EnsureSuccessStatusCode();
        // Her PIN is changed by the lead from elsewhere: she is signed out here too.
        await With(shop, kit, "2580");
        shop.Services.GetRequiredService<Library>().SetPin(Guid.Parse(kit), "x");
        (await shop.Client.GetFromJsonAsync<JsonNode>("/api/session"))!["with"].ShouldBeNull();
    }

    [Fact]
    public async Task A_wrong_pin_signs_nobody_in_beside_and_a_stranger_cannot_ask()
    {
        await using var shop = await Workshop.Open();
        var ines = await Who(shop, "Ines Marrow");
        (await shop.Client.PostAsJsonAsync("/api/session/with", new { technicianId = ines, pin = "2580" })).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        await shop.SignIn();
        (await shop.Client.PostAsJsonAsync("/api/session/with", new { technicianId = ines, pin = "9713" })).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await shop.Client.GetFromJsonAsync<JsonNode>("/api/session"))!["with"].ShouldBeNull();
    }

    [Fact]
    public async Task Where_two_share_a_device_a_signature_after_an_hour_without_a_touch_asks_for_the_pin()
    {
        await using var shop = await Workshop.Open();
        var library = shop.Services.GetRequiredService<Library>();
        var clock = new Clock();
        var people = new DevicePeople(library, clock);
        var (kit, ines) = (Named("Kit Ransome"), Named("Ines Marrow"));
        var session = library.BeginSession(kit.Id, clock.Now).ToString();
        var http = new DefaultHttpContext
        {
            User = new(new ClaimsIdentity([new(ClaimTypes.NameIdentifier, kit.Id.ToString()), new(SignInEndpoints.SessionClaim, session)], "test")),
        };
        // Alone at the device nobody is asked, however long it lay there.
        people.RequireAtHand(http, kit);
        library.SignInWith(session, ines.Id);
        people.Seen(session, kit.Id);
        Should.Throw<PinAgainException>(() => people.RequireAtHand(http, ines)).Message.ShouldStartWith("Two are signed in here, and Ines Marrow has done nothing");
        people.Seen(session, ines.Id);
        clock.Now += TimeSpan.FromMinutes(59);
        people.RequireAtHand(http, ines);
        people.Worked(http, kit.Id);
        clock.Now += TimeSpan.FromMinutes(1);
        Should.Throw<PinAgainException>(() => people.RequireAtHand(http, ines));
        people.RequireAtHand(http, kit);
        // What a colleague does in her name meanwhile does not stand for her PIN.
        people.Worked(http, ines.Id);
        Should.Throw<PinAgainException>(() => people.RequireAtHand(http, ines));

        Technician Named(string name) => library.Technicians().Single(t => t.Name == name);
    }

    private static async Task<string> Who(Workshop shop, string name) =>
        (await shop.Client.GetFromJsonAsync<JsonNode>("/api/session"))!["technicians"]!.AsArray().Single(t => t!["name"]!.ToString() == name)!["id"]!.ToString();

    private static async Task<JsonNode> With(Workshop shop, string technicianId, string pin)
    {
        var answer = await shop.Client.PostAsJsonAsync("/api/session/with", new { technicianId, pin });
        answer.EnsureSuccessStatusCode();
        return (await answer.Content.ReadFromJsonAsync<JsonNode>())!;
    }

    private static async Task<HttpResponseMessage> Note(Workshop shop, string job, string text, string? by)
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, $"/api/jobs/{job}/notes");
        var version = (int)(await shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{job}"))!["version"]!;
        request.Content = JsonContent.Create(new { eventId = Guid.NewGuid(), expectedVersion = version, occurredAt = DateTimeOffset.Now, text });
        if (by is not null) request.Headers.Add("Pawl-Technician", by);
        return await shop.Client.SendAsync(request);
    }

    private sealed class Clock : TimeProvider
    {
        public DateTimeOffset Now { get; set; } = new(2031, 4, 9, 8, 0, 0, TimeSpan.Zero);
        public override DateTimeOffset GetUtcNow() => Now;
    }
}
