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
public sealed record ElectricAction(ElectricAct Act, string Name, StepKey? Step, bool Allowed, IReadOnlyList<string> Because, bool Moves, IReadOnlyList<Caution> Cautions);

/// <summary>A routine that was asked for and whose end is not recorded.</summary>
/// <param name="EventId">The event that asked.</param>
/// <param name="Act">What was asked.</param>
/// <param name="By">Who asked.</param>
/// <param name="At">When.</param>
/// <param name="Says">What holds until its end is known.</param>
public sealed record PendingRoutine(Guid EventId, ElectricAct Act, string By, DateTimeOffset At, string Says);

/// <summary>A trace that was kept, as it was read then.</summary>
/// <param name="Sha256">Its bytes are found by it.</param>
/// <param name="Side">The corner; of a motor that pulls both cables, left.</param>
/// <param name="From">Where it comes from.</param>
/// <param name="Reading">How it was read.</param>
/// <param name="At">When it was kept.</param>
public sealed record KeptTrace(string Sha256, Side Side, string From, TraceReading Reading, DateTimeOffset At);

/// <summary>The electric bench of a job.</summary>
/// <param name="ServesLink">True where the link may serve this job.</param>
/// <param name="LinkSays">Why it may, or may not.</param>
/// <param name="Actions">What it can do, in the order in which a job does it.</param>
/// <param name="People">Who is on the job: each says that their hands are clear.</param>
/// <param name="Pending">What was asked and has not ended; null where nothing is under way.</param>
/// <param name="Traces">The newest trace of each side.</param>
/// <param name="Compared">The two beside each other; null while there are not two of one actuation.</param>
/// <param name="Earlier">Each side beside its earlier one in this job; empty where there is none.</param>
/// <param name="BatterySays">How long the ignition may stay on; null where nobody has read the battery.</param>
public sealed record ElectricBenchView(
    bool ServesLink,
    string LinkSays,
    IReadOnlyList<ElectricAction> Actions,
    IReadOnlyList<string> People,
    PendingRoutine? Pending,
    IReadOnlyList<KeptTrace> Traces,
    TraceComparison? Compared,
    IReadOnlyList<TraceComparison> Earlier,
    string? BatterySays);

/// <summary>The electric bench as a job fills it. What it offers is what the plan offers: it has no way of its own to move a motor.</summary>
public static class JobElectric
{
    /// <summary>How often the brake is cycled. Common practice, no source: three to five times.</summary>
    public const int Cycles = 3;

    private static readonly TimeSpan OnTheJob = TimeSpan.FromHours(8);

    // The longest that the unit drives a motor, and a little: before that nobody may take it as standing.
    private static readonly TimeSpan LongestRun = TimeSpan.FromSeconds(30);

    private static readonly (ElectricAct Act, string Name, string[] Steps, bool Moves)[] Known =
    [
        (ElectricAct.ReadCodes, "Read codes", ["codes-read"], false),
        (ElectricAct.Release, "Release", ["brake-released"], true),
        (ElectricAct.IntoService, "Into service", ["service-entered", "service-entered-car"], true),
        (ElectricAct.Close, "Close", ["service-closed"], true),
        (ElectricAct.Apply, "Apply", ["first-apply", "brake-applied"], true),
        (ElectricAct.Cycle, $"Cycle {Cycles} times", ["brake-cycled"], true),
        (ElectricAct.ClearCodes, "Clear codes", ["codes-cleared"], false),
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
        var serves = Serves(state);
        var says = serves ? "The car on the link is not there: nothing real moves."
            : !state.Setup.IsElectric ? "This brake has no motor, or nobody has said yet that it has."
            : "A real car: the link does not serve it. Do it with your own tool, and say what the tool said.";
        var kept = state.Standing.Where(e => e.Event is TraceKept).Select(e => (At: e, Kept: (TraceKept)e.Event)).ToArray();
        KeptTrace? Of(Side side, int back) =>
            kept.Where(k => k.Kept.Side == side && k.Kept.Direction == kept[^1].Kept.Direction).Reverse().Skip(back).Select(k => new KeptTrace(k.Kept.Sha256, side, k.Kept.From, k.Kept.Reading, k.At.At)).FirstOrDefault();
        var (left, right) = (Of(Side.Left, 0), Of(Side.Right, 0));
        // Two of one actuation are kept within moments of each other.
        var pair = left is not null && right is not null && (left.At - right.At).Duration() < TimeSpan.FromMinutes(5);
        return new(serves, says, [.. Known.Select(k => Action(state, k))], People(state, now, me), Pending(state), [.. new[] { left, right }.OfType<KeptTrace>()],
            pair ? TraceSides.Compare(left!.Reading, right!.Reading) : null,
            [.. Sides.Both.Select(s => (Now: Of(s, 0), Then: Of(s, 1))).Where(p => p is { Now: not null, Then: not null }).Select(p => TraceSides.Compare(p.Now!.Reading, p.Then!.Reading, $"{p.Now.Side.Word()} now", "the one before"))],
            state.BatteryVolts is { } volts && IgnitionTime.From(UnitsNet.ElectricPotential.FromVolts(volts), BatteryHeld.Floor(state)) is { Lasts: not null } lasts ? lasts.Says : null);
    }

    /// <summary>The step that an act does now.</summary>
    internal static StepKey? StepOf(JobState state, ElectricAct act) => Action(state, Array.Find(Known, k => k.Act == act)) is { Allowed: true, Step: { } step } ? step : null;

    private static ElectricAction Action(JobState state, (ElectricAct Act, string Name, string[] Steps, bool Moves) known)
    {
        var there = known.Steps.Select(id => new StepKey(id, null)).Where(k => StepCatalogue.Find(k.StepId)!.Applies(state.Setup)).ToArray();
        if (there.Length == 0) return new(known.Act, known.Name, null, false, ["This job does it in another way."], known.Moves, []);
        if (Pending(state) is { } pending) return new(known.Act, known.Name, there[0], false, [pending.Says], known.Moves, []);
        var offered = Planner.Offered(state.Setup, state.Car, state.Remaining);
        var step = Array.Find(there, offered.Contains) ?? there[0];
        var cautions = StepCatalogue.Find(step.StepId)!.Cautions;
        if (offered.Contains(step)) return new(known.Act, known.Name, step, true, [], known.Moves, cautions);
        // What is behind it, or not on its way, lacks nothing that anybody should go and bring about.
        if (!state.Remaining.Contains(step)) return new(known.Act, known.Name, step, false, ["The plan does not ask for it now."], known.Moves, cautions);
        var why = Planner.Why(state.Setup, state.Car, step);
        return new(known.Act, known.Name, step, false, why.Allowed ? ["The plan comes to it later."] : why.Lacking, known.Moves, cautions);
    }

    /// <summary>Everybody who did something in this job lately, and whoever asks.</summary>
    internal static IReadOnlyList<string> People(JobState state, DateTimeOffset now, string me) =>
        [.. state.Log.Where(e => now - e.RecordedAt < OnTheJob).Select(e => e.Technician).Prepend(me).Distinct(StringComparer.Ordinal)];

    internal static PendingRoutine? Pending(JobState state) => state.Running is not { } running ? null
        : new(running.Id, ((RoutineAsked)running.Event).Act, running.Technician, running.At, "The motor may still be running. Hands out, until its state has been read.");

    /// <summary>True while a motor may still be running after a link was lost, by the clock alone.</summary>
    /// <param name="since">How long ago it was asked.</param>
    public static bool MayStillRun(TimeSpan since) => since < LongestRun;
}
