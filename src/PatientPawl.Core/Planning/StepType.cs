using PatientPawl.Core.Jobs;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Torque;

namespace PatientPawl.Core.Planning;

/// <summary>The stages of a job, as the spine shows them.</summary>
public enum Stage
{
    /// <summary>Look.</summary>
    Look,
    /// <summary>Make safe.</summary>
    MakeSafe,
    /// <summary>Free.</summary>
    Free,
    /// <summary>Judge.</summary>
    Judge,
    /// <summary>Clean.</summary>
    Clean,
    /// <summary>Retract.</summary>
    Retract,
    /// <summary>Fit.</summary>
    Fit,
    /// <summary>Torque.</summary>
    Torque,
    /// <summary>Close.</summary>
    Close,
    /// <summary>Prove.</summary>
    Prove,
    /// <summary>Record.</summary>
    Record,
}

/// <summary>Whether a step belongs to the car or is done once at each corner.</summary>
public enum Lane
{
    /// <summary>Once, on the car.</summary>
    Car,
    /// <summary>Once at each corner.</summary>
    Corner,
}

/// <summary>Where one stands to do it.</summary>
public enum Place
{
    /// <summary>At the corner.</summary>
    Corner,
    /// <summary>In the cabin.</summary>
    Cabin,
    /// <summary>Under the bonnet.</summary>
    Bonnet,
    /// <summary>At the bench.</summary>
    Bench,
    /// <summary>Round or under the car.</summary>
    RoundCar,
}

/// <summary>What a step does that an interlock cares about.</summary>
[Flags]
public enum Concern : long
{
    /// <summary>Nothing.</summary>
    None = 0,
    /// <summary>Someone works under the car.</summary>
    UnderCar = 1L << 0,
    /// <summary>A wheel comes off.</summary>
    WheelOff = 1L << 1,
    /// <summary>The parking brake is released or put in service.</summary>
    ReleasesBrake = 1L << 2,
    /// <summary>The gear leaves P.</summary>
    LeavesPark = 1L << 3,
    /// <summary>The car leaves the ground.</summary>
    Lifts = 1L << 4,
    /// <summary>The parking brake is applied, closed or cycled.</summary>
    AppliesBrake = 1L << 5,
    /// <summary>A caliper comes off.</summary>
    CaliperOff = 1L << 6,
    /// <summary>A cable is slackened.</summary>
    SlackensCable = 1L << 7,
    /// <summary>The pedal is pressed.</summary>
    Pedal = 1L << 8,
    /// <summary>The ignition goes on, or the key comes near.</summary>
    WakesCar = 1L << 9,
    /// <summary>An actuator is unplugged.</summary>
    Unplugs = 1L << 10,
    /// <summary>A piston is pushed or turned home.</summary>
    Retracts = 1L << 11,
    /// <summary>A hat comes over parking shoes.</summary>
    HatOff = 1L << 12,
    /// <summary>A rotor screw is cracked with the parking brake holding the hub.</summary>
    HubHeldByBrake = 1L << 13,
    /// <summary>A caliper goes on.</summary>
    CaliperOn = 1L << 14,
    /// <summary>The service position is left, or the brake cycled for the first time.</summary>
    LeavesService = 1L << 15,
    /// <summary>The car comes down.</summary>
    Lowers = 1L << 16,
    /// <summary>Final wheel torque.</summary>
    WheelTorque = 1L << 17,
    /// <summary>The chocks come out.</summary>
    ChocksOut = 1L << 18,
    /// <summary>The car moves.</summary>
    MovesCar = 1L << 19,
    /// <summary>The car is handed over.</summary>
    HandsOver = 1L << 20,
    /// <summary>Bracket or mounting bolts go back in.</summary>
    RefitsBolts = 1L << 21,
    /// <summary>The pedal counts as proved.</summary>
    ProvesPedal = 1L << 22,
    /// <summary>Friction parts meet.</summary>
    FitsFriction = 1L << 23,
    /// <summary>Work at a corner of a raised car.</summary>
    AtCorner = 1L << 24,
    /// <summary>Hands at a caliper whose parking mechanism could move.</summary>
    HandsIn = 1L << 25,
    /// <summary>A circuit is bled: its own screw is open while the pedal moves.</summary>
    Bleeds = 1L << 26,
    /// <summary>A hub is turned by hand.</summary>
    TurnsHub = 1L << 27,
    /// <summary>Something wakes, moves or unlocks that can reach a hand at a corner.</summary>
    HandsOut = 1L << 28,
    /// <summary>Hands among the shoes in a hat.</summary>
    HandsInHat = 1L << 29,
    /// <summary>Hands at a spot caliper.</summary>
    HandsInSpot = 1L << 30,
    /// <summary>The hydraulic brake of a corner is opened: its caliper or its pads come off.</summary>
    OpensBrake = 1L << 31,
    /// <summary>Slide-pin bolts go back in.</summary>
    RefitsPins = 1L << 32,
    /// <summary>A piston's fluid comes back by a way that was measured.</summary>
    Displaces = 1L << 33,
    /// <summary>A piston is sent home for the new parts.</summary>
    SendsHome = 1L << 34,
    /// <summary>The car is moved in the yard, or pulled against its own brake.</summary>
    MovesInYard = 1L << 35,
    /// <summary>The car is stopped firmly, again and again.</summary>
    StopsFirmly = 1L << 36,
}

/// <summary>Whether a step may be chosen where the plan does not ask for it.</summary>
public enum ByChoice
{
    /// <summary>It is done when the plan asks for it.</summary>
    Never,
    /// <summary>The plan asks for it where it must, and good hands choose it elsewhere.</summary>
    Too,
    /// <summary>The plan never asks for it: it is another way of doing what the plan asks for, or more than it asks for.</summary>
    Only,
}

/// <summary>Another thing that can be found at a step than what was expected.</summary>
/// <param name="Id">Its id, kept for ever in stored events.</param>
/// <param name="Says">What was found, as it stands on its button.</param>
/// <param name="Makes">What is so then.</param>
public sealed record Outcome(string Id, string Says, IReadOnlyList<Effect> Makes)
{
    /// <summary>When it can be found at all, by what the brake is made of.</summary>
    public Func<PlanSetup, bool> Applies { get; init; } = _ => true;

    /// <summary>What must be true for it to be possible.</summary>
    public IReadOnlyList<Condition> Needs { get; init; } = [];

    /// <summary>What nobody knows any more once it is found: each as far as its own variable says, at both corners.</summary>
    internal IReadOnlyList<StateVariable> Doubts { get; init; } = [];

    /// <summary>True when the core finds it from the readings, and nobody chooses it.</summary>
    public bool Reckoned { get; init; }

    /// <summary>The finding it is, where it changes what is wanted and not only what is so.</summary>
    public FindingKind? Reports { get; init; }
}

/// <summary>A caution that stands at the step where it matters.</summary>
/// <param name="Id">Its id, recorded with the acknowledgement.</param>
/// <param name="Says">The caution.</param>
/// <param name="MustAcknowledge">True when it can hurt and the acknowledgement is recorded.</param>
public sealed record Caution(string Id, string Says, bool MustAcknowledge);

/// <summary>A type of step: a row of the catalogue. Adding one needs no change to the engine.</summary>
/// <param name="Id">Its id, kept for ever in stored events.</param>
/// <param name="Name">Its name, 17 characters where possible.</param>
/// <param name="Stage">Its stage on the spine.</param>
/// <param name="Lane">Car or corner.</param>
/// <param name="Place">Where one stands.</param>
/// <param name="Minutes">Usual minutes; an estimate.</param>
/// <param name="Because">Why it stands where it does, in one sentence.</param>
public sealed record StepType(string Id, string Name, Stage Stage, Lane Lane, Place Place, int Minutes, string Because)
{
    /// <summary>True where the car, the fluid or the heat takes its minutes: no workshop is quicker.</summary>
    public bool Waits { get; init; }

    /// <summary>When it exists at all.</summary>
    public Func<PlanSetup, bool> Applies { get; init; } = _ => true;

    /// <summary>At which corners it exists, where it does not at both.</summary>
    public Func<PlanSetup, Side, bool> AppliesAt { get; init; } = (_, _) => true;

    /// <summary>What must be true before it.</summary>
    public IReadOnlyList<Condition> Needs { get; init; } = [];

    /// <summary>What it makes true, as expected.</summary>
    public IReadOnlyList<Effect> Makes { get; init; } = [];

    /// <summary>What can be found instead of what was expected. Every one of them has a plan.</summary>
    public IReadOnlyList<Outcome> Outcomes { get; init; } = [];

    /// <summary>What interlocks care about, beside what its place says.</summary>
    public Concern Concerns { get; init; }

    /// <summary>True for work at a corner that is done with the car on its wheels.</summary>
    public bool OnWheels { get; init; }

    /// <summary>True for what ends the job: nothing else may be left to do.</summary>
    public bool EndsTheJob { get; init; }

    /// <summary>True for what closes a corner: it is done once nothing behind it is wanted any more.</summary>
    public bool Lasts { get; init; }

    /// <summary>True for what is not put off to save a walk: it decides what comes after it.</summary>
    public bool Soon { get; init; }

    /// <summary>Whether it may be chosen where the plan does not ask for it.</summary>
    public ByChoice ByChoice { get; init; }

    /// <summary>What must hold for it to be offered by choice, beside what it needs anyway.</summary>
    public IReadOnlyList<Condition> ChosenWhile { get; init; } = [];

    /// <summary>Where it is right, and what it brings; of a step that may be chosen.</summary>
    public Func<PlanSetup, string>? RightWhere { get; init; }

    /// <summary>Everything about it that interlocks care about: work at a corner is work on a raised car unless it says otherwise.</summary>
    public Concern AllConcerns => Concerns | (Lane == Lane.Corner && Place == Place.Corner && !OnWheels ? Concern.AtCorner : Concern.None);

    /// <summary>Tools to have at hand.</summary>
    public IReadOnlyList<string> Tools { get; init; } = [];

    /// <summary>Parts and consumables to have at hand.</summary>
    public IReadOnlyList<string> Parts { get; init; } = [];

    /// <summary>Cautions at this step.</summary>
    public IReadOnlyList<Caution> Cautions { get; init; } = [];

    /// <summary>Readings it carries.</summary>
    public IReadOnlyList<ReadingKind> Readings { get; init; } = [];

    /// <summary>Readings it carries beside those, where the brake is built for them.</summary>
    public Func<PlanSetup, IReadOnlyList<ReadingKind>> MoreReadings { get; init; } = _ => [];

    /// <summary>Every reading it carries in a job.</summary>
    public IReadOnlyList<ReadingKind> ReadingsIn(PlanSetup setup) => [.. Readings, .. MoreReadings(setup)];

    /// <summary>The fastener it torques; the step ends when every one of them is signed.</summary>
    public FastenerRole? Torques { get; init; }

    /// <summary>True when only the lead may click it on.</summary>
    public bool LeadOnly { get; init; }

    /// <summary>How to do it, in a sentence or two, where nothing about the job changes it.</summary>
    public string How { get; init; } = "";

    /// <summary>How to do it, where a house rule, the sheet or the route decides what is right.</summary>
    public Func<PlanSetup, string>? HowFor { get; init; }

    /// <summary>Tools, where a house rule decides which.</summary>
    public Func<PlanSetup, IReadOnlyList<string>>? ToolsFor { get; init; }

    /// <summary>Parts and consumables, where a house rule decides which.</summary>
    public Func<PlanSetup, IReadOnlyList<string>>? PartsFor { get; init; }

    /// <summary>How to do it in a job.</summary>
    public string HowIn(PlanSetup setup) => HowFor?.Invoke(setup) ?? How;

    /// <summary>Tools to have at hand in a job.</summary>
    public IReadOnlyList<string> ToolsIn(PlanSetup setup) => ToolsFor?.Invoke(setup) ?? Tools;

    /// <summary>Parts and consumables to have at hand in a job.</summary>
    public IReadOnlyList<string> PartsIn(PlanSetup setup) => PartsFor?.Invoke(setup) ?? Parts;
}

/// <summary>A step type at a place: on the car, or at one corner.</summary>
/// <param name="StepId">The step type's id.</param>
/// <param name="Side">The corner; null for a car step.</param>
public sealed record StepKey(string StepId, Side? Side)
{
    /// <inheritdoc/>
    public override string ToString() => Side is { } s ? $"{StepId}, {s.Word()}" : StepId;
}
