using System.Collections.Concurrent;
using System.Security.Claims;
using PatientPawl.Core;
using PatientPawl.Core.Jobs;
using PatientPawl.Data;
using PatientPawl.Web.Demo;

namespace PatientPawl.Web.Workshop;

/// <summary>
/// Two people at one device, each signed in with their own PIN. A command says whose it is; a signature of somebody who has given none for an
/// hour asks for their PIN again, since the device may have changed hands.
/// </summary>
public sealed class DevicePeople(Library library, TimeProvider clock)
{
    // Who gave a command, where two are signed in or where it may have waited on a device that others sign in on meanwhile.
    private const string GivenBy = "Pawl-Technician";

    private static readonly TimeSpan Idle = TimeSpan.FromHours(1);

    // Not kept over a restart: then everyone is asked once more.
    private readonly ConcurrentDictionary<(string Session, Guid Technician), DateTimeOffset> _seen = new();

    /// <summary>Who gives this command: the one it names, where they are signed in on this device.</summary>
    /// <exception cref="AnotherPersonException">It names somebody who is not.</exception>
    /// <exception cref="NotAllowedException">The sign-in is of another workshop.</exception>
    public Technician Giving(HttpContext http)
    {
        var me = Me(http);
        return http.Request.Headers[GivenBy].ToString() is not { Length: > 0 } by || by == me.Id.ToString() ? me
            : With(http) is { } with && by == with.Id.ToString() ? with : throw new AnotherPersonException(me.Name);
    }

    /// <summary>Whose session it is.</summary>
    /// <exception cref="NotAllowedException">The sign-in is of another workshop.</exception>
    public Technician Me(HttpContext http)
    {
        ArgumentNullException.ThrowIfNull(http);
        var id = http.User.FindFirstValue(ClaimTypes.NameIdentifier);
        return library.Technicians().FirstOrDefault(t => t.Id.ToString() == id) ?? throw new NotAllowedException("Sign in again.", ["That sign-in belongs to another workshop."], []);
    }

    /// <summary>Asks for a PIN where two share the device and the one who signs has done nothing for an hour.</summary>
    /// <exception cref="PinAgainException">Their PIN is wanted.</exception>
    public void RequireAtHand(HttpContext http, Technician signs)
    {
        ArgumentNullException.ThrowIfNull(signs);
        if (!IsAtHand(http, signs.Id)) throw new PinAgainException(signs.Name);
    }

    /// <summary>Somebody has done something. It does not bring back who was idle: a colleague could have done it in their name.</summary>
    public void Worked(HttpContext http, Guid technicianId)
    {
        if (IsAtHand(http, technicianId)) Seen(SessionOf(http), technicianId);
    }

    /// <summary>Somebody's PIN was right.</summary>
    internal void Seen(string session, Guid technicianId)
    {
        if (_seen.Count > 10_000) _seen.Clear();
        _seen[(session, technicianId)] = clock.GetUtcNow();
    }

    private bool IsAtHand(HttpContext http, Guid technicianId) =>
        With(http) is null || (_seen.TryGetValue((SessionOf(http), technicianId), out var at) && clock.GetUtcNow() - at < Idle);

    private Technician? With(HttpContext http) => library.SignedInWith(SessionOf(http)) is { } id ? library.Technicians().FirstOrDefault(t => t.Id == id && t.LeftAt is null) : null;

    private static string SessionOf(HttpContext http) => http.User.FindFirstValue(SignInEndpoints.SessionClaim) ?? "";

    internal static void Map(RouteGroupBuilder api)
    {
        api.MapPost("/session/with", (SignInRequest request, HttpContext http, SignIn signIn, DevicePeople people, Library library, DemoWorkshop demo) =>
        {
            var (me, with) = (people.Me(http), people.With(http));
            var technician = signIn.Check(request.TechnicianId, request.Pin, http.Connection.RemoteIpAddress?.ToString() ?? "");
            if (technician.Id != me.Id && technician.Id != with?.Id)
            {
                if (with is not null) throw new NotAllowedException("Two work on one device.", [$"{with.Name} is signed in here with {me.Name}: one of them signs out first."], []);
                library.SignInWith(SessionOf(http), technician.Id);
            }

            people.Seen(SessionOf(http), technician.Id);
            return TypedResults.Ok(SignInEndpoints.Show(http.User, library, demo));
        }).RequireAuthorization();
        api.MapDelete("/session/with/{id:guid}", async (Guid id, HttpContext http, DevicePeople people, Library library, DemoWorkshop demo, TimeProvider clock) =>
        {
            var (me, with) = (people.Me(http), people.With(http));
            if (with is null || id != me.Id && id != with.Id) throw new InputException(new InputError("id", id.ToString(), "one of the two who are signed in here", "They are not signed in here."));
            var user = http.User;
            // Whoever stays keeps the device; that they are the one who holds it, no PIN has shown.
            if (id == me.Id)
            {
                library.EndSession(SessionOf(http));
                user = await SignInEndpoints.Begin(http, with, library, clock);
            }
            else
            {
                library.SignInWith(SessionOf(http), null);
            }

            return TypedResults.Ok(SignInEndpoints.Show(user, library, demo));
        }).RequireAuthorization();
    }
}

/// <summary>The command was given by one person and sent while another is signed in: it is recorded under nobody else's name.</summary>
public sealed class AnotherPersonException(string here) : Exception($"That was done by somebody else, and {here} is signed in: it waits for whoever did it.");

/// <summary>Two share the device, and whoever signs has done nothing on it for an hour.</summary>
public sealed class PinAgainException(string who) : Exception($"Two are signed in here, and {who} has done nothing for an hour: their PIN is wanted again.");
