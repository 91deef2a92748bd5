using PatientPawl.Core.Hydraulics;
using PatientPawl.Core.Identification;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Shoes;
using PatientPawl.Core.Torque;

namespace PatientPawl.Core.Jobs;

/// <summary>A lane of the run sheet.</summary>
public enum SheetLane
{
    /// <summary>Left corner.</summary>
    Left,
    /// <summary>The car.</summary>
    Car,
    /// <summary>Right corner.</summary>
    Right,
}

/// <summary>A finished row.</summary>
/// <param name="EventId">The event, for undoing.</param>
/// <param name="Lane">Its lane.</param>
/// <param name="Name">What was done.</param>
/// <param name="Detail">Figures that came of it.</param>
/// <param name="By">Initials.</param>
/// <param name="At">The server's clock.</param>
/// <param name="CanBeUndone">True when it can be undone with a reason.</param>
public sealed record DoneRow(Guid EventId, SheetLane Lane, string Name, string Detail, string By, DateTimeOffset At, bool CanBeUndone);

/// <summary>A row still to come.</summary>
/// <param name="Step">The step.</param>
/// <param name="Lane">Its lane.</param>
/// <param name="Name">Its name.</param>
/// <param name="Minutes">Usual minutes.</param>
/// <param name="Stage">Its stage.</param>
/// <param name="Offered">True when it may be done now.</param>
/// <param name="Hold">The hold it waits behind; null when none.</param>
/// <param name="CameIn">True when the latest change of the plan brought it in.</param>
/// <param name="CanBeMarked">True when it can be marked as done before its turn.</param>
public sealed record AheadRow(StepKey Step, SheetLane Lane, string Name, int Minutes, Stage Stage, bool Offered, string? Hold, bool CameIn, bool CanBeMarked);

/// <summary>How the plan changed, for people to read.</summary>
/// <param name="EventId">The event that changed it.</param>
/// <param name="Because">Why.</param>
/// <param name="Added">What came in.</param>
/// <param name="Gone">What went out.</param>
/// <param name="Again">What was done and stands in the plan once more.</param>
public sealed record ChangeRow(Guid EventId, string Because, IReadOnlyList<string> Added, IReadOnlyList<string> Gone, IReadOnlyList<string> Again);

/// <summary>Whether a hold is met.</summary>
public enum HoldState
{
    /// <summary>Met.</summary>
    Met,
    /// <summary>Holding now.</summary>
    Holding,
    /// <summary>Still to come.</summary>
    ToCome,
}

/// <summary>A hold as a bar across the lanes.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Title">Its name.</param>
/// <param name="Says">What each side lacks, or when it was met.</param>
/// <param name="State">Met, holding or to come.</param>
/// <param name="LeftMet">True when the left side has met it.</param>
/// <param name="RightMet">True when the right side has met it.</param>
/// <param name="Met">When it was met.</param>
public sealed record HoldBar(string Id, string Title, string Says, HoldState State, bool LeftMet, bool RightMet, HoldMet? Met);

/// <summary>A tooth of the spine.</summary>
/// <param name="Stage">The stage.</param>
/// <param name="StepsLeft">Steps of this stage still in the plan.</param>
/// <param name="Finished">True when none is left and some were done, or the job is past it.</param>
public sealed record SpineTooth(Stage Stage, int StepsLeft, bool Finished);

/// <summary>A fact of the car strip.</summary>
/// <param name="Label">What.</param>
/// <param name="Value">How it stands.</param>
/// <param name="DoNot">True when it says "do not".</param>
public sealed record StripFact(string Label, string Value, bool DoNot);

/// <summary>Another thing that can be found at a step than what is expected.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Says">Its button.</param>
public sealed record OutcomeCard(string Id, string Says);

/// <summary>What the bench needs for the present step.</summary>
/// <param name="Step">The step.</param>
/// <param name="Name">Its name.</param>
/// <param name="Stage">Its stage.</param>
/// <param name="Because">Why it stands here.</param>
/// <param name="How">How to do it.</param>
/// <param name="Tools">Tools.</param>
/// <param name="Parts">Parts and consumables.</param>
/// <param name="Cautions">Cautions at this step.</param>
/// <param name="Readings">Readings it carries.</param>
/// <param name="Torque">The fastener line, when it is a torque step and the sheet has one.</param>
/// <param name="Role">The fastener role, when it is a torque step.</param>
/// <param name="Signed">Signatures so far.</param>
/// <param name="NextIndex">The number of the next fastener to sign, from 1.</param>
/// <param name="NeedsReport">True when a scan tool's words are asked for.</param>
/// <param name="Outcomes">What can be found here instead of what is expected.</param>
/// <param name="LeadOnly">True when only the lead may click it on.</param>
/// <param name="Benches">Benches that serve this step.</param>
/// <param name="Prefilled">Readings that a bench has taken already.</param>
/// <param name="Judged">Parts of this corner that stay only when they pass, as they are judged now.</param>
/// <param name="Clearance">Shoe clearance and clicks, where the step sets shoes and the bench knows them.</param>
/// <param name="StarWheel">Which way loosened this star wheel in this job; null when nobody noted it.</param>
/// <param name="BackFromLock">Clicks back from lock, where the house sets shoes by count; null where it does not.</param>
/// <param name="Page">What the page shows beside what all steps have.</param>
public sealed record StepBench(
    StepKey Step, string Name, Stage Stage, string Because, string How, IReadOnlyList<string> Tools, IReadOnlyList<string> Parts, IReadOnlyList<Caution> Cautions,
    IReadOnlyList<ReadingCard> Readings, TorqueLine? Torque, FastenerRole? Role, IReadOnlyList<TorqueSigned> Signed, int NextIndex, bool NeedsReport, IReadOnlyList<OutcomeCard> Outcomes, bool LeadOnly,
    IReadOnlyList<BenchKind> Benches, IReadOnlyList<Prefilled> Prefilled, IReadOnlyList<PartVerdict> Judged, ClearanceVerdict? Clearance, StarWheelNoted? StarWheel, int? BackFromLock, StepPage Page)
{
    /// <summary>What its note has to say; null where it may be silent.</summary>
    public string? NoteWanted { get; init; }

    /// <summary>How the pads of this corner go in, where the step is about pads.</summary>
    public PadsThere? Pads { get; init; }

    /// <summary>What the sheet says of each bolt of a torque step beside its figure, in order; empty where it is silent.</summary>
    public IReadOnlyList<string> BoltsSay { get; init; } = [];

    /// <summary>True where a screw without a figure may be accepted hand-tight, by name.</summary>
    public bool MayBeHandTight { get; init; }
}

/// <summary>A bench.</summary>
public enum BenchKind
{
    /// <summary>Drum and shoes.</summary>
    Shoes,
    /// <summary>Rotor.</summary>
    Rotor,
    /// <summary>Pads.</summary>
    Pads,
    /// <summary>Reservoir, pedal, bleeding, leaks.</summary>
    Fluid,
    /// <summary>Which way the piston goes and how far, its log, its slot.</summary>
    Retract,
    /// <summary>Which brake it is.</summary>
    Look,
    /// <summary>Every fastener's figure and setting.</summary>
    Torques,
    /// <summary>Motors, their currents and their codes.</summary>
    Electric,
    /// <summary>What proves the parking brake, and that no side drags.</summary>
    Prove,
    /// <summary>The bed-in series.</summary>
    BedIn,
}

/// <summary>A bench of a job, reached from every step of it.</summary>
/// <param name="Kind">Which.</param>
/// <param name="Lane">Whose it is.</param>
public sealed record JobBench(BenchKind Kind, SheetLane Lane);

/// <summary>A reading that a bench has taken already.</summary>
/// <param name="Kind">The reading.</param>
/// <param name="Value">Its value.</param>
/// <param name="From">Which bench, and of how many readings.</param>
/// <param name="InstrumentId">The instrument; null where it was counted.</param>
public sealed record Prefilled(ReadingKind Kind, double Value, string From, string? InstrumentId);

/// <summary>A corner as its bench shows it.</summary>
/// <param name="Side">The corner.</param>
/// <param name="Looks">The observations that stand.</param>
/// <param name="Found">What they leave standing.</param>
/// <param name="PushAllowed">True when a push test would prove something now.</param>
/// <param name="Ruling">The ruling, once made.</param>
/// <param name="Provisional">The ruling as it would be made now; null while nothing can be ruled.</param>
/// <param name="RulingEventId">Its event, for lifting.</param>
/// <param name="MethodUndecided">True while both motor designs stand.</param>
/// <param name="Travel">How far, once measured.</param>
/// <param name="Verdicts">Verdicts, once judged.</param>
/// <param name="PistonHome">True once the piston is home.</param>
/// <param name="RetractOffered">True when the piston may go home now.</param>
/// <param name="RetractWhyNot">Why it may not.</param>
/// <param name="Stop">The stop sign that holds the corner.</param>
/// <param name="StopEventId">Its event, for lifting.</param>
/// <param name="StopMeans">What that sign means and what may follow.</param>
/// <param name="Reservoir">The reservoir through the job, the same as on the fluid bench; null until measured.</param>
/// <param name="Log">What the retraction log says; null while there is none.</param>
public sealed record CornerView(
    Side Side, IReadOnlyList<Observation> Looks, Identified Found, bool PushAllowed, Ruling? Ruling, Ruling? Provisional, Guid? RulingEventId, bool MethodUndecided, TravelResult? Travel,
    IReadOnlyList<LimitVerdict> Verdicts, bool PistonHome, bool RetractOffered, IReadOnlyList<string> RetractWhyNot, StopSignSeen? Stop, Guid? StopEventId, StopCard? StopMeans, ReservoirAnswer? Reservoir, LogAnswer? Log);

/// <summary>The run sheet: what is next, what else is allowed, what holds.</summary>
/// <param name="Now">The bench of the next step; null when nothing is left.</param>
/// <param name="Also">What else may be done now.</param>
/// <param name="Done">Finished rows, oldest first.</param>
/// <param name="Ahead">Rows to come, in order.</param>
/// <param name="Holds">The holds, in order.</param>
/// <param name="Spine">The stages.</param>
/// <param name="Stage">The present stage.</param>
/// <param name="Strip">The state of the car.</param>
/// <param name="MinutesLeft">Minutes left for one technician.</param>
/// <param name="CannotBeMet">What no order can reach, in words.</param>
/// <param name="NotYet">A telling step that is not allowed, and why.</param>
/// <param name="Findings">What was found that changed the job.</param>
/// <param name="PartsList">What is renewed, and why where a finding added it.</param>
/// <param name="Changes">How the plan changed on the way, the latest last.</param>
/// <param name="LayOut">What to fetch for what is left.</param>
/// <param name="CanFind">What can be reported now: left corner, car, right corner.</param>
/// <param name="Night">How the job was left, while it is left.</param>
/// <param name="Goal">What the job is to end in, and whether it is there.</param>
/// <param name="MayChoose">True when something may be chosen now that the plan does not ask for.</param>
/// <param name="Awaits">Parts that are waited for; null when none are.</param>
/// <param name="Benches">The benches that this job has, lane by lane.</param>
public sealed record RunSheet(
    StepBench? Now, IReadOnlyList<StepBench> Also, IReadOnlyList<DoneRow> Done, IReadOnlyList<AheadRow> Ahead, IReadOnlyList<HoldBar> Holds, IReadOnlyList<SpineTooth> Spine,
    Stage Stage, IReadOnlyList<StripFact> Strip, int MinutesLeft, IReadOnlyList<string> CannotBeMet, NotYet? NotYet,
    IReadOnlyList<SidedFinding> Findings, IReadOnlyList<string> PartsList, IReadOnlyList<ChangeRow> Changes, LayOut LayOut, IReadOnlyList<IReadOnlyList<FindingCard>> CanFind, LeftOvernight? Night, GoalCard Goal, bool MayChoose, AwaitedParts? Awaits, IReadOnlyList<JobBench> Benches);

/// <summary>A step that may be chosen now where the plan does not ask for it.</summary>
/// <param name="Bench">Its bench.</param>
/// <param name="Where">Where it is right, and what it brings.</param>
/// <param name="Minutes">Minutes more that the whole job takes with it; fewer where it is negative.</param>
public sealed record ChoiceCard(StepBench Bench, string Where, int Minutes);

/// <summary>A step that is not allowed yet, and why.</summary>
/// <param name="Step">The step.</param>
/// <param name="Name">Its name.</param>
/// <param name="Why">Why not.</param>
public sealed record NotYet(StepKey Step, string Name, string Why);
