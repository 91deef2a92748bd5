using PatientPawl.Core.Electric.Link;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Planning;

namespace PatientPawl.Core.Electric;

/// <summary>What the electric bench can do over a link.</summary>
public enum ElectricAct
{
    /// <summary>Read the codes.</summary>
    ReadCodes,
    /// <summary>Release the brake.</summary>
    Release,
    /// <summary>Drive both sides into service.</summary>
    IntoService,
    /// <summary>Close it, after both sides.</summary>
    Close,
    /// <summary>Apply it.</summary>
    Apply,
    /// <summary>Apply and release three times, and end applied.</summary>
    Cycle,
    /// <summary>Read the codes, clear them, and read them again.</summary>
    ClearCodes,
}

/// <summary>One thing that the bench can do, and whether it may be done now.</summary>
/// <param name="Act">What.</param>
/// <param name="Name">As it stands on its button.</param>
/// <param name="Step">The step of the plan that it does; null where this job has none.</param>
/// <param name="Allowed">True when the plan offers it now.</param>
/// <param name="Because">What stands in its way; empty when nothing does.</param>
/// <param name="Moves">True where a motor moves: hands clear first.</param>
/// <param name="Cautions">Cautions that are acknowledged with it.</param>
public sealed record ElectricAction(
    ElectricAct Act,
    string Name,
    StepKey? Step,
    bool Allowed,
    IReadOnlyList<string> Because,
    bool Moves,
    IReadOnlyList<Caution> Cautions);

/// <summary>A routine that was asked for and whose end is not recorded.</summary>
/// <param name="EventId">The event that asked.</param>
/// <param name="Act">What was asked.</param>
/// <param name="By">Who asked.</param>
/// <param name="At">When.</param>
/// <param name="Says">What holds until its end is known.</param>
public sealed record PendingRoutine(Guid EventId, ElectricAct Act, string By, DateTimeOffset At, string Says);

/// <summary>How the last thing asked over the link ended, where it did not end as asked or left codes.</summary>
/// <param name="Says">In words.</param>
/// <param name="Codes">Codes that were stored then, each with its cause and what ends it, where they are known.</param>
public sealed record EndedBadly(string Says, IReadOnlyList<CodeRead> Codes);

/// <summary>A code that was read out.</summary>
/// <param name="Letters">A letter and four figures.</param>
/// <param name="Known">What it means; null where it is not one of the stand-in car's.</param>
public sealed record CodeRead(string Letters, TroubleCode? Known);

/// <summary>A trace that was kept, as it was read then.</summary>
/// <param name="Sha256">Its bytes are found by it.</param>
/// <param name="Side">The corner; of a motor that pulls both cables, left.</param>
/// <param name="From">Where it comes from.</param>
/// <param name="Reading">How it was read.</param>
public sealed record KeptTrace(string Sha256, Side Side, string From, TraceReading Reading);

/// <summary>The electric bench of a job.</summary>
/// <param name="ServesLink">True where the link may serve this job.</param>
/// <param name="LinkSays">Why it may, or may not.</param>
/// <param name="Actions">What it can do, in the order in which a job does it.</param>
/// <param name="People">Who is on the job: each says that their hands are clear.</param>
/// <param name="Pending">What was asked and has not ended; null where nothing is under way.</param>
/// <param name="Ended">How the last one ended; null where it ended as asked and left no code.</param>
/// <param name="Traces">The newest trace of each side.</param>
/// <param name="Compared">The two beside each other; null while there are not two of one way and one source.</param>
/// <param name="Earlier">Each side beside its earlier one in this job; empty where there is none.</param>
/// <param name="BatterySays">How long the ignition may stay on; null where nobody has read the battery at rest.</param>
public sealed record ElectricBenchView(
    bool ServesLink,
    string LinkSays,
    IReadOnlyList<ElectricAction> Actions,
    IReadOnlyList<string> People,
    PendingRoutine? Pending,
    EndedBadly? Ended,
    IReadOnlyList<KeptTrace> Traces,
    TraceComparison? Compared,
    IReadOnlyList<TraceComparison> Earlier,
    string? BatterySays);

/// <summary>The electric bench as a job fills it. What it offers is what the plan offers: it has no way of its own to move a motor.</summary>
public static class JobElectric
{
    /// <summary>How often the brake is cycled. Common practice, no source: three to five times.</summary>
    public const int Cycles = 3;

    // Whoever did something within a working day is taken to be at the car. Ours.
    private static readonly TimeSpan OnTheJob = TimeSpan.FromHours(8);

    // A spindle further from its stop than this is not back: play and the stop itself give less. Ours.
    private const double NotBackMm = 1.0;

    private static readonly Kind[] Kinds =
    [
        new(ElectricAct.ReadCodes, "Read codes", ["codes-read"], false),
        new(ElectricAct.Release, "Release", ["brake-released"], true),
        new(ElectricAct.IntoService, "Into service", ["service-entered", "service-entered-car"], true),
        new(ElectricAct.Close, "Close", ["service-closed"], true),
        new(ElectricAct.Apply, "Apply", ["first-apply", "brake-applied"], true),
        new(ElectricAct.Cycle, $"Cycle {Cycles} times", ["brake-cycled"], true),
        new(ElectricAct.ClearCodes, "Clear codes", ["codes-cleared"], false),
    ];

    /// <summary>True for a job that no real car stands behind: only these does the link serve, for a simulated close never proves a real car.</summary>
    public static bool Serves(JobState state)
    {
        ArgumentNullException.ThrowIfNull(state);
        return state.Opened?.Purpose is JobPurpose.Demo or JobPurpose.Practice or JobPurpose.Test && state.Setup.IsElectric;
    }

    /// <summary>The bench as it stands.</summary>
    /// <param name="state">The job.</param>
    /// <param name="now">The time, for who is on the job.</param>
    /// <param name="me">Who asks.</param>
    public static ElectricBenchView View(JobState state, DateTimeOffset now, string me)
    {
        ArgumentNullException.ThrowIfNull(state);
        var says = Serves(state) ? "The car on the link is not there: nothing real moves."
            : !state.Setup.IsElectric ? "This brake has no motor, or nobody has said yet that it has."
            : "A real car: the link does not serve it. Do it with your own tool, and say what the tool said.";
        var kept = Kept(state);
        KeptTrace? Of(Side side, int back) => kept.Where(k => k.Side == side).Skip(back).FirstOrDefault();
        var (left, right) = (Of(Side.Left, 0), Of(Side.Right, 0));
        var earlier = Sides.Both
            .Select(s => (Now: Of(s, 0), Then: Of(s, 1)))
            .Where(p => p.Then is not null)
            .Select(p => TraceSides.Compare(p.Now!.Reading, p.Then!.Reading, $"{p.Now.Side.Word()} now", "the one before"));
        return new(
            Serves(state),
            says,
            [.. Kinds.Select(k => Action(state, k))],
            People(state, now, me),
            Pending(state),
            Ended(state),
            [.. new[] { left, right }.OfType<KeptTrace>()],
            left is not null && right is not null && left.From == right.From ? TraceSides.Compare(left.Reading, right.Reading) : null,
            [.. earlier],
            BatterySays(state));
    }

    /// <summary>What is wrong with what the car says of itself, for this job; null where nothing is.</summary>
    /// <param name="state">The job.</param>
    /// <param name="car">What the car says.</param>
    public static string? Contradicts(JobState state, LiveState car)
    {
        if (WrongBrake(state, car) is { } wrong) return wrong;
        if (car.State != UnitState.Service || !state.Setup.IsMotor) return null;
        var (side, hundredths) = car.LeftHundredthsMm >= car.RightHundredthsMm ? (Side.Left, car.LeftHundredthsMm) : (Side.Right, car.RightHundredthsMm);
        var mm = hundredths / 100.0;
        return mm > NotBackMm
            ? $"The {side.Word()} spindle stands {Figure.Of(mm, 1)} mm from its stop: it is not back. Nothing is pressed onto it before it is driven or turned back."
            : null;
    }

    /// <summary>Why the car on the link cannot be this job's; null where it can.</summary>
    /// <param name="state">The job.</param>
    /// <param name="car">What the car says.</param>
    public static string? WrongBrake(JobState state, LiveState car)
    {
        ArgumentNullException.ThrowIfNull(state);
        ArgumentNullException.ThrowIfNull(car);
        var motors = state.Setup.PullsCables ? 1 : 2;
        return car.Motors == motors ? null
            : $"The car reports {Figure.Count(car.Motors, "motor")}, and this job's brake has {motors}: another car, or look again at the brake. Nothing is moved.";
    }

    // The newest first, and only those of the same way as the newest: an apply is not laid beside a release.
    private static KeptTrace[] Kept(JobState state)
    {
        var kept = state.Standing.Select(e => e.Event).OfType<TraceKept>().Reverse().ToArray();
        return [.. kept.Where(k => k.Direction == kept[0].Direction).Select(k => new KeptTrace(k.Sha256, k.Side, k.From, k.Reading))];
    }

    private static EndedBadly? Ended(JobState state)
    {
        if (state.Standing.Select(e => e.Event).OfType<RoutineEnded>().LastOrDefault() is not { } ended) return null;
        if (ended.Codes.Count == 0 && ended is { Lost: false, Refused: null, Stays: null }) return null;
        return new(ended.Words, [.. ended.Codes.Select(c => new CodeRead(c, TroubleCodes.Find(c)))]);
    }

    private static string? BatterySays(JobState state) =>
        state.BatteryVolts is { } volts && IgnitionTime.From(UnitsNet.ElectricPotential.FromVolts(volts), BatteryHeld.Floor(state)) is { Lasts: not null } lasts
            ? lasts.Says
            : null;

    private static ElectricAction Action(JobState state, Kind kind)
    {
        var steps = kind.Steps.Select(id => new StepKey(id, null)).Where(k => StepCatalogue.Find(k.StepId)!.Applies(state.Setup)).ToArray();
        if (steps.Length == 0) return new(kind.Act, kind.Name, null, false, ["This job does it in another way."], kind.Moves, []);
        var offered = Planner.Offered(state.Setup, state.Car, state.Remaining);
        var step = Array.Find(steps, offered.Contains) ?? steps[0];
        var because = Because(state, step, offered);
        return new(kind.Act, kind.Name, step, because.Count == 0, because, kind.Moves, StepCatalogue.Find(step.StepId)!.Cautions);
    }

    /// <summary>What stands in a step's way; empty where nothing does.</summary>
    private static IReadOnlyList<string> Because(JobState state, StepKey step, List<StepKey> offered)
    {
        if (Pending(state) is { } pending) return [pending.Says];
        if (offered.Contains(step)) return [];
        // What is behind it, or not on its way, lacks nothing that anybody should go and bring about.
        if (!state.Remaining.Contains(step)) return ["The plan does not ask for it now."];
        var why = Planner.Why(state.Setup, state.Car, step);
        return why.Allowed ? ["The plan comes to it later."] : why.Lacking;
    }

    /// <summary>Everybody who did something in this job lately, and whoever asks.</summary>
    internal static IReadOnlyList<string> People(JobState state, DateTimeOffset now, string me) =>
        [.. state.Log.Where(e => now - e.RecordedAt < OnTheJob).Select(e => e.Technician).Prepend(me).Distinct(StringComparer.Ordinal)];

    internal static PendingRoutine? Pending(JobState state) => state.Running is not { } running ? null : new(
        running.Id,
        ((RoutineAsked)running.Event).Act,
        running.Technician,
        running.At,
        "The motor may still be running. Hands out, until its state has been read.");

    /// <summary>What the bench can do, by which steps of the plan, and whether a motor moves.</summary>
    private sealed record Kind(ElectricAct Act, string Name, string[] Steps, bool Moves);
}
