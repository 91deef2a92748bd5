using PatientPawl.Core;
using PatientPawl.Core.Identification;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Practice;
using PatientPawl.Data;
using PatientPawl.Web.Jobs;
using PatientPawl.Web.Workshop;

namespace PatientPawl.Web.Practice;

public sealed record OpenRun(Guid EventId, int ExpectedVersion, DateTimeOffset OccurredAt, Guid JobId, string ScenarioId, PracticeWay Way)
    : IVersioned;
public sealed record AnswerCommand(Guid EventId, int ExpectedVersion, DateTimeOffset OccurredAt, string StepId, Side? Side, string Option)
    : IVersioned;
public sealed record PickCommand(Guid EventId, int ExpectedVersion, DateTimeOffset OccurredAt, string StepId, Side? Side) : IVersioned;
public sealed record TouchCommand(Guid EventId, int ExpectedVersion, DateTimeOffset OccurredAt, Side Side, PracticeThing Thing)
    : IVersioned;
public sealed record ReadCommand(Guid EventId, int ExpectedVersion, DateTimeOffset OccurredAt, Side? Side, ReadingKind Kind,
    string? InstrumentId) : IVersioned;
public sealed record ReturnCommand(Guid EventId, int ExpectedVersion, DateTimeOffset OccurredAt, Guid Target) : IVersioned;
public sealed record RunCommand(Guid EventId, int ExpectedVersion, DateTimeOffset OccurredAt) : IVersioned;

/// <summary>A scenario as it is chosen; its truth stays where it is.</summary>
public sealed record ScenarioCard(string Id, string Title, string DriverSays, string Vehicle, IReadOnlyList<string> Trains, bool IsOwn);

/// <summary>A finished job to practise on.</summary>
public sealed record ScenarioFrom(Guid JobId, string Id, string Title, string DriverSays);

/// <summary>A run of somebody's.</summary>
public sealed record RunCard(Guid JobId, string Title, PracticeWay Way, bool IsEnded, bool IsFinished, int Harms, int Minutes, DateOnly On);

/// <summary>What somebody has shown, for the lead.</summary>
public sealed record LearnerCard(string Name, IReadOnlyList<CompetenceCard> Competences);

/// <summary>The practice page.</summary>
public sealed record PracticeHome(
    IReadOnlyList<ScenarioCard> Scenarios, IReadOnlyList<RunCard> Runs, int CardsDue, int CardsNew,
        IReadOnlyList<CompetenceCard> Competences, IReadOnlyList<LearnerCard>? Team);

/// <summary>Whether a step that was picked may be done, and else what it lacks; refused ones are in the log with what they would have come to.</summary>
public sealed record Picked(bool IsAllowed, string Says);

/// <summary>A point that is read for a bench.</summary>
public sealed record PointWanted(Side Side, Measurand Measurand, string Place, string InstrumentId);

/// <summary>A look that is had.</summary>
public sealed record SightWanted(Side Side, Look Look);

/// <summary>What a gauge that is not there shows.</summary>
public sealed record PointShown(double ValueMm);

/// <summary>What a look shows.</summary>
public sealed record SightShown(Seen Seen, string Says);

/// <summary>An answer to a card, and when.</summary>
public sealed record CardAnswer(string CardId, bool IsRight, DateTimeOffset At);

/// <summary>Answers to cards, given here or before the network came back.</summary>
public sealed record CardAnswers(IReadOnlyList<CardAnswer> Answers);

internal static class PracticeEndpoints
{
    private const int Dealt = 12;
    private const int MostAnswers = 500;

    public static void MapPractice(this RouteGroupBuilder api)
    {
        var practice = api.MapGroup("/practice").RequireAuthorization();
        practice.MapGet("/", (HttpContext http, JobCommands commands, EventStore events, Library library, TimeProvider clock) =>
        {
            var (me, today) = (commands.Me(http), Today(clock));
            var boxes = library.Boxes(me.Id);
            var shown = library.Shown().ToLookup(s => s.TechnicianId);
            return TypedResults.Ok(new PracticeHome(
                [.. library.Scenarios().Concat(ScenarioSet.All).Select(Card)],
                [.. events.Practised(me.Id).Select(id => Card(id, events.State(id))).OfType<RunCard>()], boxes.Count(b => b.Due <= today),
                    CardSet.All.Count - boxes.Count,
                Competences.Of(shown[me.Id], today),
                me.IsLead ? [.. library.Technicians().Where(t => t.LeftAt is null)
                    .Select(t => new LearnerCard(t.Name, Competences.Of(shown[t.Id], today)))] : null));
        });
        practice.MapPost("/runs", async (OpenRun c, HttpContext http, JobCommands commands, Library library) =>
        {
            var scenario = Find(library, c.ScenarioId);
            if (c.JobId == Guid.Empty) throw new InputException(new InputError("jobId", c.JobId.ToString(), "a new id",
                "The job id is empty."));
            return TypedResults.Ok(await commands.Append(http, c.JobId, c, (state, _) => state.Opened is null
                ? PracticeRules.Start(scenario, c.Way, c.JobId.GetHashCode(), library.HouseRules, library.Instruments())
                : throw new NotAllowedException("That run is open already.", [], [])));
        });
        // Who writes what others are judged by is the lead, and the truth of a scenario is the lead's to see.
        practice.MapGet("/scenarios/{id}", (string id, HttpContext http, Library library) =>
        {
            http.RequireLead();
            return TypedResults.Ok(Find(library, id));
        });
        practice.MapGet("/form", (HttpContext http) =>
        {
            http.RequireLead();
            return TypedResults.Ok(ScenarioForm.Whole);
        });
        practice.MapPost("/scenarios", (Scenario scenario, HttpContext http, Library library) =>
        {
            http.RequireLead();
            return TypedResults.Ok(Keep(library, scenario));
        });
        practice.MapPost("/scenarios/from-job", (ScenarioFrom from, HttpContext http, EventStore events, Library library) =>
        {
            http.RequireLead();
            return TypedResults.Ok(Keep(library, ScenarioFromJob.Of(events.State(from.JobId), from.Id, from.Title, from.DriverSays,
                from.JobId.GetHashCode())));
        });
        practice.MapDelete("/scenarios/{id}", (string id, HttpContext http, Library library) =>
        {
            http.RequireLead();
            if (!library.RemoveScenario(id)) throw NotFound(library, id);
            return TypedResults.NoContent();
        });
        practice.MapDelete("/runs/{id:guid}", (Guid id, HttpContext http, JobCommands commands, EventStore events) =>
        {
            events.DeletePractice(id, commands.Me(http).Id);
            return TypedResults.NoContent();
        });
        practice.MapGet("/cards", (HttpContext http, JobCommands commands, Library library, TimeProvider clock) =>
            TypedResults.Ok(LeitnerBoxes.Deal(CardSet.All, library.Boxes(commands.Me(http).Id), Today(clock), Dealt)));
        practice.MapPost("/cards", (CardAnswers given, HttpContext http, JobCommands commands, Library library) =>
        {
            var checks = new Checks().Range("answers", given.Answers.Count, 1, MostAnswers, "");
            foreach (var answer in given.Answers.Where(a => CardSet.All.All(c => c.Id != a.CardId)))
                checks.Add("cardId", Figure.Shorten(answer.CardId), "a card of the set", "There is no such card.");
            foreach (var answer in given.Answers.Where(a => a.At.Year is < 2000 or > 2200)) checks.Add("at", answer.At.ToString("O"),
                "2000 to 2200", "The client's clock is far off.");
            checks.ThrowIfAny();
            var me = commands.Me(http);
            foreach (var answer in given.Answers.OrderBy(a => a.At)) library.Put(me.Id, answer.CardId, answer.IsRight, answer.At);
            return TypedResults.NoContent();
        });
        MapRun(api.MapGroup("/jobs/{id:guid}").RequireAuthorization());
    }

    private static void MapRun(RouteGroupBuilder job)
    {
        job.MapGet("/practice", (Guid id, string? stepId, string? side, EventStore events) =>
            TypedResults.Ok(PracticeView.Of(events.State(id), stepId is null ? null : new(stepId, JobEndpoints.SideOf(side)))));
        job.MapPost("/practice/answer", async (Guid id, AnswerCommand c, HttpContext http, JobCommands commands) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) => PracticeRules.Answer(s, new(c.StepId, c.Side), c.Option))));
        job.MapPost("/practice/pick", async (Guid id, PickCommand c, HttpContext http, JobCommands commands, EventStore events) =>
        {
            if (PracticeRules.Pick(events.State(id), new(c.StepId, c.Side)) is null) return TypedResults.Ok(new Picked(true, ""));
            PracticeTried? tried = null;
            await commands.Append(http, id, c, (s, _) => tried = PracticeRules.Pick(s, new(c.StepId, c.Side))
                ?? throw new NotAllowedException("It may be done by now.", ["Pick it once more."], []));
            return TypedResults.Ok(new Picked(false, tried?.Says() ?? ""));
        });
        job.MapPost("/practice/look", async (Guid id, TouchCommand c, HttpContext http, JobCommands commands) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) => PracticeRules.LookAt(s, c.Side, c.Thing))));
        job.MapPost("/practice/read", async (Guid id, ReadCommand c, HttpContext http, JobCommands commands) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) => PracticeRules.Read(s, c.Side, c.Kind, c.InstrumentId))));
        job.MapPost("/practice/point", (Guid id, PointWanted w, EventStore events) =>
            TypedResults.Ok(new PointShown(PracticeRules.ReadPoint(events.State(id), w.Side, w.Measurand, w.Place, w.InstrumentId))));
        job.MapPost("/practice/sight", (Guid id, SightWanted w, EventStore events) =>
        {
            var seen = PracticeRules.Sight(events.State(id), w.Side, w.Look);
            return TypedResults.Ok(new SightShown(seen, LookCatalogue.Words(seen)));
        });
        job.MapPost("/practice/help", async (Guid id, RunCommand c, HttpContext http, JobCommands commands) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) => PracticeRules.Help(s))));
        job.MapPost("/practice/return", async (Guid id, ReturnCommand c, HttpContext http, JobCommands commands) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) => PracticeRules.Return(s, c.Target))));
        job.MapPost("/practice/end", async (Guid id, RunCommand c, HttpContext http, JobCommands commands, EventStore events, Library library,
            TimeProvider clock) =>
        {
            var ended = await commands.Append(http, id, c, (s, _) => PracticeRules.End(s));
            var state = events.State(id);
            library.Show(state.Log[0].TechnicianId, [.. Debrief.Of(state).Shown.Select(s => s.Competence)],
                state.Opened!.Practice!.ScenarioId, Today(clock));
            return TypedResults.Ok(ended);
        });
        job.MapGet("/debrief", (Guid id, EventStore events) => TypedResults.Ok(Debrief.Of(events.State(id))));
    }

    private static ScenarioCard Card(Scenario s) =>
        new(s.Id, s.Title, s.DriverSays, $"{s.Vehicle.Make} {s.Vehicle.Model}", [.. s.Trains.Select(t => t.Words())],
            ScenarioSet.Find(s.Id) is null);

    private static Scenario Find(Library library, string id) => ScenarioSet.Find(id) ?? library.Scenarios()
        .FirstOrDefault(s => s.Id == id) ?? throw NotFound(library, id);

    private static InputException NotFound(Library library, string id) =>
        new(new InputError("scenarioId", Figure.Shorten(id),
            string.Join(", ", library.Scenarios().Concat(ScenarioSet.All).Select(s => s.Id)), "There is no such scenario."));

    private static ScenarioCard Keep(Library library, Scenario scenario)
    {
        library.Save(ScenarioSet.Own(scenario));
        return Card(scenario);
    }

    /// <summary>Null where its scenario is none of this version's: the page shows the others all the same.</summary>
    private static RunCard? Card(Guid id, JobState state)
    {
        if (state.Opened!.Practice is not { Own: not null } && ScenarioSet.Find(state.Opened.Practice!.ScenarioId) is null) return null;
        var summary = RunSummary.Of(state);
        return new(id, PracticeRules.RunOf(state).Scenario.Title, state.Opened!.Practice!.Way, PracticeRules.IsEnded(state), summary.Finished,
            summary.Harms, summary.Minutes, DateOnly.FromDateTime(state.Log[0].At.DateTime));
    }

    private static DateOnly Today(TimeProvider clock) => DateOnly.FromDateTime(clock.GetLocalNow().DateTime);
}
