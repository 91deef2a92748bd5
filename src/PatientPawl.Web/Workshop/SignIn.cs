using System.Security.Claims;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.Identity;
using PatientPawl.Core;
using PatientPawl.Data;
using PatientPawl.Web.Demo;
using PatientPawl.Web.Hosting;

namespace PatientPawl.Web.Workshop;

/// <summary>A technician as the sign-in page shows one.</summary>
public sealed record TechnicianName(Guid Id, string Name, bool IsLead);

/// <summary>Who is signed in, and what the sign-in page needs.</summary>
/// <param name="Me">The technician signed in; null when nobody is.</param>
/// <param name="Workshop">The workshop's name.</param>
/// <param name="Technicians">Names to pick from.</param>
/// <param name="FirstRun">True when there is no technician yet: the first visit makes the lead.</param>
/// <param name="DemoPin">The demo's PIN; null in a workshop of one's own.</param>
/// <param name="With">Who is signed in on the same device as well; null when nobody is.</param>
public sealed record Session(TechnicianName? Me, string Workshop, IReadOnlyList<TechnicianName> Technicians, bool FirstRun, string? DemoPin, TechnicianName? With);

/// <summary>Signing in.</summary>
public sealed record SignInRequest(Guid TechnicianId, string Pin);

/// <summary>The first lead of a new workshop.</summary>
public sealed record FirstLeadRequest(string Workshop, string Name, string Pin);

/// <summary>A further technician.</summary>
public sealed record NewTechnicianRequest(string Name, string Pin, bool IsLead);

/// <summary>Another PIN for somebody: one's own with the old one, or anybody's by the lead.</summary>
public sealed record PinRequest(string? OldPin, string NewPin);

/// <summary>
/// Checks PINs with the framework's hasher. Wrong ones cost the device that sends them a delay that grows; nobody's name is locked, so that
/// no one can lock a workshop out from the outside.
/// </summary>
public sealed class SignIn(Library library, IPasswordHasher<Technician> hasher, TimeProvider clock)
{
    /// <summary>Wrong PINs that cost nothing yet: a slip of a gloved finger.</summary>
    public const int Free = 3;

    private static readonly TimeSpan Longest = TimeSpan.FromMinutes(5);
    private readonly Lock _gate = new();
    private readonly Dictionary<string, (int Wrong, DateTimeOffset Until)> _slips = new(StringComparer.Ordinal);

    public Technician Make(string name, string pin, bool isLead)
    {
        new Checks().Text("name", name, 60).ThrowIfAny();
        var technician = new Technician(Guid.NewGuid(), name.Trim(), isLead, "");
        return technician with { PinHash = Hashed(technician, pin) };
    }

    /// <summary>A PIN as it is stored; one that anybody would try first is asked for again.</summary>
    /// <exception cref="InputException">Too short, no digits, or too easy.</exception>
    public string Hashed(Technician technician, string pin)
    {
        if (pin is null || pin.Length is < 4 or > 12 || !pin.All(char.IsAsciiDigit))
            throw new InputException(new InputError("pin", "not shown", "4 to 12 digits", "A PIN has 4 to 12 digits."));
        var steps = pin.Zip(pin.Skip(1), (a, b) => b - a).Distinct().ToArray();
        if (steps is [0] or [1] or [-1])
            throw new InputException(new InputError("pin", "not shown", "digits that do not repeat or count up or down", "That PIN is the first that anybody tries: choose another."));
        return hasher.HashPassword(technician, pin);
    }

    /// <exception cref="InputException">No such name, or not that PIN.</exception>
    /// <exception cref="TooManySlipsException">This device has to wait.</exception>
    public Technician Check(Guid id, string pin, string device)
    {
        // One at a time, so that parallel guesses cannot slip past the count.
        lock (_gate)
        {
            var now = clock.GetUtcNow();
            if (_slips.TryGetValue(device, out var slip) && slip.Until > now) throw new TooManySlipsException(slip.Until - now);
            var technician = library.Technicians().FirstOrDefault(t => t.Id == id && t.LeftAt is null)
                ?? throw new InputException(new InputError("technicianId", id.ToString(), "a name of this workshop", "Pick a name first."));
            if (hasher.VerifyHashedPassword(technician, technician.PinHash, pin ?? "") != PasswordVerificationResult.Failed)
            {
                _slips.Remove(device);
                return technician;
            }

            // Three are free; then 2, 4, 8 seconds and so on, five minutes at most.
            var wrong = (_slips.TryGetValue(device, out var before) ? before.Wrong : 0) + 1;
            var wait = wrong <= Free ? TimeSpan.Zero : TimeSpan.FromSeconds(Math.Min(Math.Pow(2, wrong - Free), Longest.TotalSeconds));
            if (_slips.Count > 10_000) _slips.Clear();
            _slips[device] = (wrong, now + wait);
            throw new InputException(new InputError("pin", "not shown", "the right PIN", "That PIN is not right."));
        }
    }
}

/// <summary>Too many wrong PINs from one device.</summary>
public sealed class TooManySlipsException(TimeSpan wait) : Exception($"Too many wrong PINs from this device: try again in {Figure.Count(Math.Ceiling(wait.TotalSeconds), "second")}.")
{
    /// <summary>How long.</summary>
    public TimeSpan Wait { get; } = wait;
}

internal static class SignInEndpoints
{
    public const string LeadClaim = "lead", SessionClaim = "session";

    public static void MapSignIn(this RouteGroupBuilder api)
    {
        api.MapGet("/session", (HttpContext http, Library library, DemoWorkshop demo) => TypedResults.Ok(Show(http.User, library, demo)));
        api.MapPost("/session", async (SignInRequest request, HttpContext http, SignIn signIn, DevicePeople people, Library library, DemoWorkshop demo, TimeProvider clock) =>
        {
            var technician = signIn.Check(request.TechnicianId, request.Pin, http.Connection.RemoteIpAddress?.ToString() ?? "");
            return TypedResults.Ok(Show(await BeginByPin(http, technician, library, people, clock), library, demo));
        });
        api.MapDelete("/session", async (HttpContext http, Library library) =>
        {
            // The cookie is taken back here, not only at the browser: a copy of it signs nobody in.
            if (http.User.FindFirstValue(SessionClaim) is { } session) library.EndSession(session);
            await http.SignOutAsync();
            return TypedResults.NoContent();
        });
        DevicePeople.Map(api);
        api.MapPost("/workshop/first-lead", async (FirstLeadRequest request, HttpContext http, SignIn signIn, DevicePeople people, Library library, DemoWorkshop demo, TimeProvider clock) =>
        {
            // Asked before anything is hashed: nobody makes a workshop that has its lead work for them.
            if (library.Technicians().Count > 0) throw new Core.Jobs.NotAllowedException("This workshop has its lead.", ["The lead adds further technicians."], []);
            new Checks().Text("workshop", request.Workshop, 60).ThrowIfAny();
            var lead = signIn.Make(request.Name, request.Pin, isLead: true);
            if (!library.Add(lead, onlyWhenEmpty: true))
                throw new Core.Jobs.NotAllowedException("This workshop has its lead.", ["The lead adds further technicians."], []);
            library.Name(request.Workshop.Trim());
            return TypedResults.Ok(Show(await BeginByPin(http, lead, library, people, clock), library, demo));
        });
        api.MapPost("/technicians", (NewTechnicianRequest request, HttpContext http, SignIn signIn, Library library, DemoWorkshop demo) =>
        {
            http.RequireLead();
            if (!library.Add(signIn.Make(request.Name, request.Pin, request.IsLead)))
                throw new InputException(new InputError("name", Figure.Shorten(request.Name), "a name not taken", "That name is taken."));
            return TypedResults.Ok(Show(http.User, library, demo));
        }).RequireAuthorization();
        api.MapPost("/technicians/{id:guid}/pin", (Guid id, PinRequest request, HttpContext http, SignIn signIn, Library library, DemoWorkshop demo) =>
        {
            var whose = Somebody(library, id);
            if (http.User.FindFirstValue(ClaimTypes.NameIdentifier) == id.ToString()) signIn.Check(id, request.OldPin ?? "", http.Connection.RemoteIpAddress?.ToString() ?? "");
            else http.RequireLead();
            library.SetPin(id, signIn.Hashed(whose, request.NewPin));
            return TypedResults.Ok(Show(http.User, library, demo));
        }).RequireAuthorization();
        api.MapPost("/technicians/{id:guid}/left", (Guid id, HttpContext http, Library library, DemoWorkshop demo, TimeProvider clock) =>
        {
            http.RequireLead();
            Somebody(library, id);
            if (library.Technicians().Count(t => t.IsLead && t.LeftAt is null) == 1 && library.Technicians().Any(t => t.Id == id && t.IsLead))
                throw new Core.Jobs.NotAllowedException("The last lead does not leave.", ["Add another lead first."], []);
            library.Leave(id, clock.GetUtcNow());
            return TypedResults.Ok(Show(http.User, library, demo));
        }).RequireAuthorization();
    }

    private static Technician Somebody(Library library, Guid id) => library.Technicians().FirstOrDefault(t => t.Id == id && t.LeftAt is null)
        ?? throw new InputException(new InputError("id", id.ToString(), "somebody who works here", "Nobody of that id works here."));

    public static void RequireLead(this HttpContext http)
    {
        if (!http.User.HasClaim(LeadClaim, "yes")) throw new Core.Jobs.NotAllowedException("The lead does this.", ["Needs the lead's sign-in."], []);
    }

    /// <summary>Begins a session, and gives the device its cookie.</summary>
    internal static async Task<ClaimsPrincipal> Begin(HttpContext http, Technician technician, Library library, TimeProvider clock)
    {
        var user = Principal(technician, library.BeginSession(technician.Id, clock.GetUtcNow()));
        await http.SignInAsync(user);
        return user;
    }

    private static async Task<ClaimsPrincipal> BeginByPin(HttpContext http, Technician technician, Library library, DevicePeople people, TimeProvider clock)
    {
        var user = await Begin(http, technician, library, clock);
        people.Seen(user.FindFirstValue(SessionClaim)!, technician.Id);
        return user;
    }

    private static ClaimsPrincipal Principal(Technician t, Guid session) => new(new ClaimsIdentity(
        [new(ClaimTypes.NameIdentifier, t.Id.ToString()), new(ClaimTypes.Name, t.Name), new(LeadClaim, t.IsLead ? "yes" : "no"), new(SessionClaim, session.ToString())], CookieAuthenticationDefaults.AuthenticationScheme));

    internal static Session Show(ClaimsPrincipal user, Library library, DemoWorkshop demo)
    {
        var technicians = library.Technicians();
        // A cookie from another database on the same port names nobody here.
        var me = technicians.FirstOrDefault(t => t.Id.ToString() == user.FindFirstValue(ClaimTypes.NameIdentifier));
        var with = me is not null && user.FindFirstValue(SessionClaim) is { } session ? library.SignedInWith(session) : null;
        return new(me is null ? null : Name(me), library.WorkshopName, [.. technicians.Where(t => t.LeftAt is null).Select(Name)], technicians.Count == 0, demo.Pin,
            technicians.FirstOrDefault(t => t.Id == with) is { } other ? Name(other) : null);
    }

    private static TechnicianName Name(Technician t) => new(t.Id, t.Name, t.IsLead);
}
