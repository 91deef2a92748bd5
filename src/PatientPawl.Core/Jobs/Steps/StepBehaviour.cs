using PatientPawl.Core.Hydraulics;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Shoes;

namespace PatientPawl.Core.Jobs;

/// <summary>What a step judged.</summary>
/// <param name="Outcome">What was found instead of what was expected; null when it was as expected.</param>
internal sealed record Judgement(string? Outcome)
{
    public IReadOnlyList<LimitVerdict> Verdicts { get; init; } = [];
    public TravelResult? Travel { get; init; }
    public RoomResult? Room { get; init; }
    public IReadOnlyList<Finding> Findings { get; init; } = [];
    public ClearanceVerdict? Clearance { get; init; }
}

/// <summary>What a note has to say.</summary>
/// <param name="What">In a few words.</param>
/// <param name="Says">The sentence that asks for it.</param>
internal sealed record NoteWanted(string What, string Says);

/// <summary>What the page shows at a step beside what all steps have.</summary>
public enum StepPage
{
    /// <summary>Nothing more.</summary>
    Plain,
    /// <summary>How the piston goes back.</summary>
    Retract,
    /// <summary>The parts that are renewed.</summary>
    PartsList,
    /// <summary>The car's own sequence into service.</summary>
    InCarSequence,
    /// <summary>The car's own sequence out of service.</summary>
    InCarClosing,
}

/// <summary>
/// What a step asks for, judges, leaves in the job's file and shows, beside what the plan knows of it. Steps that do none of this have the
/// plain one.
/// </summary>
internal class StepBehaviour
{
    private static readonly StepBehaviour Plain = new();

    private static readonly Dictionary<string, StepBehaviour> ById = new(StringComparer.Ordinal)
    {
        ["look-over"] = new OnItsOwnBench(),
        ["identify"] = new OnItsOwnBench(),
        ["choose-route"] = new OnItsOwnBench(),
        ["push-tried"] = new OnItsOwnBench(),
        ["battery-held"] = new BatteryHeld(),
        ["ignition-left-on"] = new IgnitionLeftOn(),
        ["codes-read"] = new OnTheElectricBench(),
        ["brake-released"] = new OnTheElectricBench(),
        ["first-apply"] = new OnTheElectricBench(),
        ["brake-applied"] = new OnTheElectricBench(),
        ["brake-cycled"] = new OnTheElectricBench(),
        ["codes-cleared"] = new OnTheElectricBench(),
        ["service-entered"] = new AsksTheScanTool(),
        ["service-entered-car"] = new InCarService(),
        ["service-closed"] = new ServiceClosed(),
        ["star-wheel-backed"] = new StarWheelBacked(),
        ["screw-decided"] = new ScrewDecided(),
        ["reservoir-looked"] = new FluidLooked(),
        ["reservoir-again"] = new ReservoirAgain(),
        ["fluid-drawn"] = new FluidDrawn(),
        ["inspected"] = new Inspected(),
        ["measured"] = new Measured(),
        ["shoes-measured"] = new ShoesMeasured(),
        ["verdict-settled"] = new VerdictSettled(),
        ["parts-compared"] = new PartsCompared(),
        ["pads-in"] = new PadsGoIn(),
        ["pads-back"] = new PadsGoIn(),
        ["piston-levered"] = new PistonLevered(),
        ["piston-judged"] = new PistonJudged(),
        ["piston-home"] = new PistonHome(),
        ["piston-tried"] = new ByTheRuling(),
        ["new-caliper-hung"] = new NewCaliperHung(),
        ["shoes-set"] = new ShoesSet(),
        ["new-shoes-set"] = new ShoesSet(),
        ["bleed"] = new BleedStep(),
        ["corner-bled"] = new BleedStep(),
        ["pedal-proved"] = new PedalProved(),
        ["pedal-proved-routine"] = new PedalProved(),
        ["leaks-looked"] = new LeaksLooked(),
        ["level-looked"] = new LevelLooked(),
        ["screws-cracked-brake"] = new ScrewsCracked(),
        ["screws-cracked-bar"] = new ScrewsCracked(),
        ["rotor-freed"] = new RotorFreed(),
        ["pads-eased"] = new PadsEased(),
        ["pitted-hub-judged"] = new PittedHubJudged(),
        ["pin-kit"] = new PutRight(noted: false),
        ["pins-seated"] = new PutRight(noted: false),
        ["hub-mended"] = new PutRight(noted: true),
        ["speed-sensor-mended"] = new PutRight(noted: true),
        ["trouble-settled"] = new PutRight(noted: true),
        ["pedal-traced"] = new PutRight(noted: true),
        ["brake-traced"] = new PutRight(noted: true),
        ["tagged-off-road"] = new TaggedOffRoad(),
        ["handed-over"] = new KeysGoBack(),
        ["torques-accepted"] = new TorquesAccepted(),
        ["brake-held"] = new BrakeProved(),
        ["test-driven"] = new BrakeProved(),
        ["bed-in"] = new BedInSeriesDriven(),
    };

    static StepBehaviour()
    {
        foreach (var type in Planning.Steps.LeftOpen.All.Where(t => !ById.ContainsKey(t.Id))) ById[type.Id] = new LeftByTheLead();
    }

    /// <summary>Ids of the steps that have one; for the test that each of them exists.</summary>
    public static IReadOnlyCollection<string> Ids => ById.Keys;

    /// <summary>The behaviour of a step.</summary>
    public static StepBehaviour Of(string stepId) => ById.GetValueOrDefault(stepId, Plain);

    /// <summary>True when it is finished elsewhere and never clicked on by itself.</summary>
    public virtual bool HasItsOwnBench => false;

    /// <summary>True when it can be marked as done before its turn: it judges nothing.</summary>
    public virtual bool CanBeMarked => true;

    /// <summary>True when a scan tool does it, whose words are asked for.</summary>
    public virtual bool AsksTheTool => false;

    /// <summary>What its note has to say; null where it may be silent.</summary>
    public virtual NoteWanted? NoteWanted => null;

    /// <summary>What was decided where it is clicked on as expected, for the record; null of a step that decides nothing.</summary>
    public virtual string? Decides => null;

    /// <summary>True when only the lead may find it so.</summary>
    /// <param name="outcome">What was found; null as expected.</param>
    public virtual bool LeadDecides(string? outcome) => false;

    /// <summary>How it is done, where that depends on what was found; null where the catalogue says it.</summary>
    public virtual string? How(JobState state, Side? side) => null;

    /// <summary>Refuses what cannot be clicked on like this.</summary>
    /// <exception cref="InputException">Naming the figure, the range and what to do.</exception>
    public virtual void Check(JobState state, ClickOn command, string? outcome)
    {
    }

    /// <summary>What follows from its readings.</summary>
    public virtual Judgement Judge(JobState state, ClickOn command, string? outcome) => new(outcome);

    /// <summary>What it leaves in the job's file, beside its readings.</summary>
    public virtual JobFile Fold(JobFile file, StepDone done) => file;

    /// <summary>Benches that serve it.</summary>
    public virtual IReadOnlyList<BenchKind> Benches(JobState state, Side? side) => [];

    /// <summary>Readings that a bench has taken already.</summary>
    public virtual IReadOnlyList<Prefilled> Prefilled(JobState state, Side side) => [];

    /// <summary>Parts that stay only when they pass, as they are judged now.</summary>
    public virtual IReadOnlyList<PartVerdict> Judged(JobState state, Side side) => [];

    /// <summary>Shoe clearance and clicks, where it sets shoes.</summary>
    public virtual ClearanceVerdict? Clearance(JobState state, Side side) => null;

    /// <summary>Clicks back from lock, where it sets shoes by count.</summary>
    public virtual int? BackFromLock(JobState state) => null;

    /// <summary>How pads go in at this corner, where it is about pads.</summary>
    public virtual PadsThere? Pads(JobState state, Side side) => null;

    /// <summary>What the page shows beside.</summary>
    public virtual StepPage Page(JobState state) => StepPage.Plain;
}

/// <summary>Finished on its own bench: a look, a ruling, a choice.</summary>
internal sealed class OnItsOwnBench : StepBehaviour
{
    public override bool HasItsOwnBench => true;
}
