using System.Security.Cryptography;
using System.Text;
using PatientPawl.Core;
using PatientPawl.Core.Fleet;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Vehicles;
using PatientPawl.Data;
using PatientPawl.Web.Hosting;
using PatientPawl.Web.Measuring;
using PatientPawl.Web.Workshop;

namespace PatientPawl.Web.Vehicles;

/// <summary>A reminder to tick off.</summary>
public sealed record TickOff(string Id);

/// <summary>A vehicle of the fleet.</summary>
/// <param name="Vehicle">The vehicle.</param>
/// <param name="LastOn">When it was last here.</param>
/// <param name="LastKm">Its odometer then.</param>
/// <param name="PadsDue">The day from which its pads may be at their minimum; null where that cannot be said.</param>
/// <param name="Within30">Chance that they are there within 30 days, 0 to 1; null where that cannot be said.</param>
/// <param name="Within60">Within 60.</param>
/// <param name="Within90">Within 90.</param>
public sealed record FleetLine(Vehicle Vehicle, DateOnly LastOn, int LastKm, DateOnly? PadsDue, double? Within30, double? Within60,
    double? Within90);

/// <summary>A step whose minutes the workshop has learnt.</summary>
/// <param name="StepId">The step.</param>
/// <param name="Name">Its name.</param>
/// <param name="Minutes">As this workshop takes them.</param>
/// <param name="Usual">As they are reckoned where nothing was learnt.</param>
/// <param name="Count">Out of so many times.</param>
public sealed record StepLearnt(string StepId, string Name, int Minutes, int Usual, int Count);

/// <summary>What finished jobs taught the workshop.</summary>
/// <param name="Jobs">How many there were.</param>
/// <param name="Minutes">Steps whose minutes it has learnt.</param>
/// <param name="Findings">What comes up again and again.</param>
public sealed record WorkshopLessons(int Jobs, IReadOnlyList<StepLearnt> Minutes, IReadOnlyList<FrequentFinding> Findings);

/// <summary>A page of the fleet, those whose pads are soonest at their minimum first.</summary>
/// <param name="Vehicles">Its vehicles.</param>
/// <param name="More">True where others come after them.</param>
/// <param name="Unread">How many vehicles have moved on and are being read.</param>
public sealed record Fleet(IReadOnlyList<FleetLine> Vehicles, bool More, int Unread);

/// <summary>What comes due.</summary>
/// <param name="Reminders">The soonest first.</param>
/// <param name="More">True where there is more than a list holds: of 200 vehicles at most.</param>
public sealed record ComesDue(IReadOnlyList<Reminder> Reminders, bool More);

/// <summary>Where a calendar program finds the reminders.</summary>
/// <param name="Address">Path and key: whoever has it reads what comes due, and nothing else.</param>
public sealed record CalendarAddress(string Address);

/// <summary>Vehicles over the years, and what comes due.</summary>
internal static class FleetEndpoints
{
    private const string KeySetting = "calendar-key";

    public static void MapFleet(this RouteGroupBuilder api)
    {
        api.MapGet("/fleet", (string? search, int? skip, EventStore events, ToolBoard board) =>
        {
            var checks = new Checks().Range("skip", skip, 0, 1_000_000, "vehicles");
            if (!string.IsNullOrWhiteSpace(search)) checks.Text("search", search, 100);
            checks.ThrowIfAny();
            var page = events.Fleet(search ?? "", skip ?? 0);
            return TypedResults.Ok(new Fleet([.. page.Vehicles.Select(c => Line(Outlook.Of(c, board.Today)))], page.More, page.Unread));
        }).RequireAuthorization();
        api.MapGet("/fleet/csv", (EventStore events, ToolBoard board) =>
            TypedResults.File(Encoding.UTF8.GetBytes(FleetCsv.Write(events.WholeFleet().Select(c => Outlook.Of(c, board.Today)))), "text/csv", "fleet.csv"))
                .RequireAuthorization();
        api.MapGet("/workshop/lessons", (EventStore events) =>
        {
            var lessons = events.Lessons();
            return TypedResults.Ok(new WorkshopLessons(lessons.Jobs, [.. lessons.Minutes.Select(m => (Learnt: m, Type: StepCatalogue.Find(m.StepId)!))
                .Select(m => new StepLearnt(m.Learnt.StepId, m.Type.Name, m.Learnt.Minutes, m.Type.Minutes, m.Learnt.Count))], lessons.Findings));
        }).RequireAuthorization();
        api.MapGet("/reminders", (EventStore events, Library library, ToolBoard board) => TypedResults.Ok(Due(events, library, board)))
            .RequireAuthorization();
        api.MapGet("/vehicles/{plate}/story", (string plate, EventStore events, Library library, ToolBoard board) =>
        {
            var story = VehicleStory.Of(events.VehicleJobs(plate),
                board.Today) ?? throw new InputException(new InputError("plate", Figure.Shorten(plate), "a vehicle that was here",
                "No job of this workshop tells of that vehicle."));
            var done = library.DoneReminders();
            return TypedResults.Ok(story with
            {
                Outlook = story.Outlook with
                {
                    Reminders = [.. story.Outlook.Reminders.Where(r =>
                !done.Contains(r.Id))]
                }
            });
        }).RequireAuthorization();
        api.MapPost("/reminders/done",
            (TickOff c, HttpContext http, EventStore events, Library library, ToolBoard board, TimeProvider clock) =>
        {
            if (Due(events, library, board).Reminders
                .All(r => r.Id != c.Id)) throw new InputException(new InputError("id", Figure.Shorten(c.Id),
                "a reminder that stands", "There is no such reminder any more."));
            library.TickOff(c.Id, http.User.Identity?.Name ?? "", clock.GetUtcNow());
            return TypedResults.Ok(Due(events, library, board));
        }).RequireAuthorization();
        api.MapGet("/reminders/calendar", (HttpContext http, Library library) =>
        {
            http.RequireLead();
            return TypedResults.Ok(new CalendarAddress(Address(library.Setting(KeySetting) ?? NewKey(library))));
        }).RequireAuthorization();
        api.MapPost("/reminders/calendar/renew", (HttpContext http, Library library) =>
        {
            http.RequireLead();
            return TypedResults.Ok(new CalendarAddress(Address(NewKey(library))));
        }).RequireAuthorization();
        // A calendar program has no sign-in: the key in its address is all it shows.
        api.MapGet("/reminders.ics", (string? key, EventStore events, Library library, ToolBoard board, TimeProvider clock) =>
            library.Setting(KeySetting) is { } kept && key is not null && CryptographicOperations.FixedTimeEquals(Encoding.UTF8.GetBytes(kept), Encoding.UTF8.GetBytes(key))
                ? Results.File(Encoding.UTF8.GetBytes(ReminderCalendar.Write(Due(events, library, board).Reminders, clock.GetUtcNow())),
                    "text/calendar", "reminders.ics")
                : Results.NotFound()).Produces<string>(StatusCodes.Status200OK, "text/calendar").Produces(StatusCodes.Status404NotFound);
    }

    private static string Address(string key) => $"/api/reminders.ics?key={key}";

    private static string NewKey(Library library)
    {
        var key = Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(16));
        library.SetSetting(KeySetting, key);
        return key;
    }

    private static FleetLine Line(VehicleOutlook o) => new(o.Vehicle, o.Last.On, o.Last.OdometerKm, o.PadsDue, o.Within30, o.Within60, o.Within90);

    private static ComesDue Due(EventStore events, Library library, ToolBoard board)
    {
        var gauges = board.Instruments.Where(i => i.CalibratedUntil is not null)
            .Select(i => new Calibrated(i.Id, i.Name, i.CalibratedUntil!.Value));
        var wrenches = library.Wrenches().Select(w => new Calibrated(w.Id, w.Name, w.CalibratedUntil));
        var (from, to) = Reminders.Window(board.Today);
        var (vehicles, more) = events.Due(from, to);
        var standing = Reminders.Standing(vehicles.Select(c => Outlook.Of(c, board.Today)), gauges.Concat(wrenches), library.DoneReminders(), board.Today);
        return new(standing, more);
    }
}
