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
public sealed record Session(TechnicianName? Me, string Workshop, IReadOnlyList<TechnicianName> Technicians, bool FirstRun, string? DemoPin);

/// <summary>Signing in.</summary>
public sealed record SignInRequest(Guid TechnicianId, string Pin);

/// <summary>The first lead of a new workshop.</summary>
public sealed record FirstLeadRequest(string Workshop, string Name, string Pin);

/// <summary>A further technician.</summary>
public sealed record NewTechnicianRequest(string Name, string Pin, bool IsLead);

/// <summary>Checks PINs with the framework's hasher; locks a name for five minutes after five failures.</summary>
public sealed class SignIn(Library library, IPasswordHasher<Technician> hasher, TimeProvider clock)
{
    public const int MostFailures = 5;
    private static readonly TimeSpan LockedFor = TimeSpan.FromMinutes(5);
    private readonly Lock _gate = new();

    public Technician Make(string name, string pin, bool isLead)
    {
        new Checks().Text("name", name, 60).ThrowIfAny();
        if (pin is null || pin.Length is < 4 or > 12 || !pin.All(char.IsAsciiDigit))
            throw new InputException(new InputError("pin", "not shown", "4 to 12 digits", "A PIN has 4 to 12 digits."));
        var technician = new Technician(Guid.NewGuid(), name.Trim(), isLead, "", 0, null);
        return technician with { PinHash = hasher.HashPassword(technician, pin) };
    }

    public Technician Check(Guid id, string pin)
    {
        // One at a time, so that parallel guesses cannot slip past the count.
        lock (_gate)
        {
            var technician = library.Technicians().FirstOrDefault(t => t.Id == id)
                ?? throw new InputException(new InputError("technicianId", id.ToString(), "a name of this workshop", "Pick a name first."));
            var now = clock.GetUtcNow();
            if (technician.LockedUntil is { } until && until > now)
                throw new InputException(new InputError("pin", "not shown", "wait", $"Locked after {MostFailures} wrong PINs: try again in {Math.Ceiling((until - now).TotalMinutes)} minutes."));
            if (hasher.VerifyHashedPassword(technician, technician.PinHash, pin ?? "") == PasswordVerificationResult.Failed)
            {
                var failures = technician.Failures + 1;
                library.SetFailures(id, failures >= MostFailures ? 0 : failures, failures >= MostFailures ? now + LockedFor : null);
                throw new InputException(new InputError("pin", "not shown", "the right PIN", "That PIN is not right."));
            }

            if (technician.Failures > 0 || technician.LockedUntil is not null) library.SetFailures(id, 0, null);
            return technician;
        }
    }
}

internal static class SignInEndpoints
{
    public const string LeadClaim = "lead";

    public static void MapSignIn(this RouteGroupBuilder api)
    {
        api.MapGet("/session", (HttpContext http, Library library, DemoWorkshop demo) => TypedResults.Ok(Show(http.User, library, demo)));
        api.MapPost("/session", async (SignInRequest request, HttpContext http, SignIn signIn, Library library, DemoWorkshop demo) =>
        {
            var user = Principal(signIn.Check(request.TechnicianId, request.Pin));
            await http.SignInAsync(user);
            return TypedResults.Ok(Show(user, library, demo));
        });
        api.MapDelete("/session", async (HttpContext http) =>
        {
            await http.SignOutAsync();
            return TypedResults.NoContent();
        });
        api.MapPost("/workshop/first-lead", async (FirstLeadRequest request, HttpContext http, SignIn signIn, Library library, DemoWorkshop demo) =>
        {
            new Checks().Text("workshop", request.Workshop, 60).ThrowIfAny();
            var lead = signIn.Make(request.Name, request.Pin, isLead: true);
            if (!library.Add(lead, onlyWhenEmpty: true))
                throw new Core.Jobs.NotAllowedException("This workshop has its lead.", ["The lead adds further technicians."], []);
            library.SetSetting("workshop-name", request.Workshop.Trim());
            DemoWorkshop.AddWrenches(library);
            var user = Principal(lead);
            await http.SignInAsync(user);
            return TypedResults.Ok(Show(user, library, demo));
        });
        api.MapPost("/technicians", (NewTechnicianRequest request, HttpContext http, SignIn signIn, Library library, DemoWorkshop demo) =>
        {
            http.RequireLead();
            if (!library.Add(signIn.Make(request.Name, request.Pin, request.IsLead)))
                throw new InputException(new InputError("name", Figure.Shorten(request.Name), "a name not taken", "That name is taken."));
            return TypedResults.Ok(Show(http.User, library, demo));
        }).RequireAuthorization();
    }

    public static void RequireLead(this HttpContext http)
    {
        if (!http.User.HasClaim(LeadClaim, "yes")) throw new Core.Jobs.NotAllowedException("The lead does this.", ["Needs the lead's sign-in."], []);
    }

    private static ClaimsPrincipal Principal(Technician t) => new(new ClaimsIdentity(
        [new(ClaimTypes.NameIdentifier, t.Id.ToString()), new(ClaimTypes.Name, t.Name), new(LeadClaim, t.IsLead ? "yes" : "no")], CookieAuthenticationDefaults.AuthenticationScheme));

    private static Session Show(ClaimsPrincipal user, Library library, DemoWorkshop demo)
    {
        var technicians = library.Technicians();
        // A cookie from another database on the same port names nobody here.
        var me = technicians.FirstOrDefault(t => t.Id.ToString() == user.FindFirstValue(ClaimTypes.NameIdentifier));
        return new(me is null ? null : Name(me), library.Setting("workshop-name") ?? "Your workshop", [.. technicians.Select(Name)], technicians.Count == 0, demo.Pin);
    }

    private static TechnicianName Name(Technician t) => new(t.Id, t.Name, t.IsLead);
}
