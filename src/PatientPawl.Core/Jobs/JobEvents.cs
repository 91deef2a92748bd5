using PatientPawl.Core.Electric;
using PatientPawl.Core.Electric.Link;
using PatientPawl.Core.Hydraulics;
using PatientPawl.Core.Identification;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Pads;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Practice;
using PatientPawl.Core.Proving;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Rotors;
using PatientPawl.Core.Shoes;
using PatientPawl.Core.Torque;
using PatientPawl.Core.Vehicles;
using PatientPawl.Core.Workshop;
using UnitsNet;

namespace PatientPawl.Core.Jobs;

/// <summary>Something that happened in a job. Events are only ever added.</summary>
public abstract record JobEvent
{
    private protected JobEvent() { }
}

/// <summary>The job was opened. Sheet and house rules are copied in, so that the job stands by itself.</summary>
/// <param name="Number">The workshop's job number.</param>
/// <param name="Bay">The bay, 1 to 99.</param>
/// <param name="Vehicle">The vehicle.</param>
/// <param name="OdometerKm">Odometer, 0 to 2 000 000 km.</param>
/// <param name="Complaint">What the driver says.</param>
/// <param name="Scope">What is renewed.</param>
/// <param name="Sheet">The spec sheet.</param>
/// <param name="Rules">The house rules.</param>
/// <param name="Instruments">The workshop's measuring instruments; null in a job from before they were kept counts as the defaults.</param>
/// <param name="NewCalipers">Corners whose caliper is renewed; null means none.</param>
/// <param name="Learnt">What earlier jobs learnt about this vehicle; null in a job from before it was kept.</param>
/// <param name="Measured">Figures that earlier jobs measured at it; null in a job from before they were kept.</param>
public sealed record JobOpened(
    int Number, int Bay, Vehicle Vehicle, int OdometerKm, string Complaint, JobScope Scope, SpecSheet Sheet, HouseRules Rules, IReadOnlyList<Instrument>? Instruments = null, IReadOnlyList<Side>? NewCalipers = null,
    IReadOnlyList<LearntFact>? Learnt = null, IReadOnlyList<LearntFigure>? Measured = null) : JobEvent
{
    /// <summary>What it is for. Said once, at its opening, for ever; a job from before it was asked is of a real car.</summary>
    public JobPurpose Purpose { get; init; }

    /// <summary>Minutes that the workshop had learnt of its steps by then; null where it knew none.</summary>
    public IReadOnlyList<LearntMinutes>? Minutes { get; init; }

    /// <summary>The scenario it is practised on; null in every job of a car.</summary>
    public PracticeRun? Practice { get; init; }
}

/// <summary>What follows from what a job is for.</summary>
internal static class JobPurposes
{
    /// <summary>True where it tells of its vehicle and teaches the workshop: practice and tests do neither.</summary>
    public static bool Tells(this JobPurpose purpose) => purpose is JobPurpose.Real or JobPurpose.Demo;
}

/// <summary>What a job is for.</summary>
public enum JobPurpose
{
    /// <summary>A real car.</summary>
    Real,
    /// <summary>To show the product.</summary>
    Demo,
    /// <summary>To learn.</summary>
    Practice,
    /// <summary>To try the product out.</summary>
    Test,
}

/// <summary>Something learnt at a vehicle in an earlier job.</summary>
/// <param name="Kind">What.</param>
/// <param name="Side">The corner; null for the car.</param>
/// <param name="Note">What was noted with it.</param>
/// <param name="On">The day.</param>
public sealed record LearntFact(FindingKind Kind, Side? Side, string? Note, DateOnly On);

/// <summary>The questions before lifting were answered and are settled.</summary>
/// <param name="Answers">Every question with its answer.</param>
public sealed record LookOverDone(IReadOnlyList<LookOverItem> Answers) : JobEvent;

/// <summary>Something was looked at. A later answer to the same look replaces it.</summary>
/// <param name="Side">The corner.</param>
/// <param name="Look">The look.</param>
/// <param name="Seen">What was seen; null takes the answer back.</param>
/// <param name="MechanismRelaxed">True when the mechanism was known to be relaxed at the time.</param>
public sealed record LookRecorded(Side Side, Look Look, Seen? Seen, bool MechanismRelaxed) : JobEvent;

/// <summary>A corner's brake was ruled on. Carries the ruling as it was shown.</summary>
/// <param name="Side">The corner.</param>
/// <param name="Standing">The architectures that stood.</param>
/// <param name="Ruling">The ruling.</param>
/// <param name="MethodUndecided">True while both motor designs stood.</param>
public sealed record BrakeRuled(Side Side, IReadOnlyList<Architecture> Standing, Ruling Ruling, bool MethodUndecided) : JobEvent;

/// <summary>The route into the service position was chosen.</summary>
/// <param name="Route">The route.</param>
public sealed record RouteChosen(ServiceRoute Route) : JobEvent;

/// <summary>What a scan tool said, as reported by the technician.</summary>
/// <param name="Succeeded">True when it said the routine was finished.</param>
/// <param name="Words">What it said, in its own words.</param>
/// <param name="Codes">Codes it showed, as typed; may be empty.</param>
public sealed record ToolReport(bool Succeeded, string Words, string Codes);

/// <summary>A step was clicked on.</summary>
/// <param name="Step">The step.</param>
/// <param name="Otherwise">True when it found something else than expected.</param>
/// <param name="Readings">Readings taken at it.</param>
/// <param name="Acknowledged">Cautions acknowledged.</param>
/// <param name="Verdicts">Verdicts as shown.</param>
/// <param name="Travel">How far, as shown.</param>
/// <param name="Room">Room in the reservoir, as shown.</param>
/// <param name="Report">What a scan tool said.</param>
/// <param name="Note">A note.</param>
/// <param name="Findings">What was found that changes the job; null when nothing.</param>
/// <param name="Clearance">Shoe clearance, as shown, where the step sets it.</param>
/// <param name="Broken">Interlocks broken, by number, when it was marked out of order; null when it was not.</param>
/// <param name="Outcome">What was found instead of what was expected; null when it was as expected. An event of the first format says only <c>Otherwise</c>: then it is the step's first outcome.</param>
public sealed record StepDone(
    StepKey Step, bool Otherwise, IReadOnlyList<Reading> Readings, IReadOnlyList<string> Acknowledged, IReadOnlyList<LimitVerdict> Verdicts,
    TravelResult? Travel, RoomResult? Room, ToolReport? Report, string? Note, IReadOnlyList<Finding>? Findings = null, ClearanceVerdict? Clearance = null, IReadOnlyList<int>? Broken = null, string? Outcome = null) : JobEvent
{
    /// <summary>The outcome's id in any format; null when it was as expected.</summary>
    internal string? Found => Outcome ?? (Otherwise && StepCatalogue.Find(Step.StepId) is { Outcomes: [var first, ..] } ? first.Id : null);
}

/// <summary>Readings were taken at a corner.</summary>
/// <param name="Side">The corner.</param>
/// <param name="Readings">The readings, each with its own id.</param>
public sealed record ReadingsTaken(Side Side, IReadOnlyList<PointReading> Readings) : JobEvent;

/// <summary>A reading was struck out. It stays in the log and judges nothing.</summary>
/// <param name="Side">The corner.</param>
/// <param name="ReadingId">The reading.</param>
/// <param name="Reason">Why.</param>
public sealed record ReadingStruck(Side Side, Guid ReadingId, string Reason) : JobEvent;

/// <summary>Drum and shoes were looked at: stamping, temperatures, bond, contamination.</summary>
/// <param name="Side">The corner.</param>
/// <param name="Facts">What is known; replaces what was known before.</param>
public sealed record ShoesLookedAt(Side Side, ShoeFacts Facts) : JobEvent;

/// <summary>A rotor was looked at: stamping, cracks, scoring, vanes.</summary>
/// <param name="Side">The corner.</param>
/// <param name="Facts">What is known; replaces what was known before.</param>
public sealed record RotorLookedAt(Side Side, RotorFacts Facts) : JobEvent;

/// <summary>The pads of the axle were looked at: caliper place, checks answered.</summary>
/// <param name="Facts">What is known; replaces what was known before.</param>
public sealed record PadsLookedAt(PadFacts Facts) : JobEvent;

/// <summary>A bed-in series was driven.</summary>
/// <param name="Facts">The series and what it was reckoned from.</param>
/// <param name="Driven">How many of its stops were driven, 0 to all of them.</param>
/// <param name="Says">What that did to the rear rotors, as it was shown.</param>
public sealed record BedInDriven(BedInFacts Facts, int Driven, string Says) : JobEvent;

/// <summary>The parking brake was tried on a hill or a roller bench, or the rotors were read after the drive.</summary>
/// <param name="Facts">What was read; replaces what was known before.</param>
/// <param name="Proofs">Each thing that was tried, judged as it was shown.</param>
/// <param name="Verdict">The verdict of all of them.</param>
/// <param name="Says">In a sentence.</param>
public sealed record ParkingHoldTried(ParkingHoldFacts Facts, IReadOnlyList<HoldProof> Proofs, Verdict Verdict, string Says) : JobEvent;

/// <summary>A line of a corner's retraction log: turns, or strokes of the press, and how far the piston stood proud.</summary>
/// <param name="Side">The corner.</param>
/// <param name="Point">The line.</param>
/// <param name="Gauge">What it was measured with.</param>
public sealed record RetractionPointNoted(Side Side, LogPoint Point, Instrument Gauge) : JobEvent;

/// <summary>A line of a retraction log was struck out. It stays in the log and counts for nothing.</summary>
/// <param name="Side">The corner.</param>
/// <param name="PointId">The line.</param>
/// <param name="Reason">Why.</param>
public sealed record RetractionPointStruck(Side Side, Guid PointId, string Reason) : JobEvent;

/// <summary>The caliper was tried over its new pads, where the house sends a piston only as far as they need.</summary>
/// <param name="Side">The corner.</param>
/// <param name="Turns">Turns made so far, 0 to 200; strokes of the press where the piston is pushed.</param>
/// <param name="Passes">True when it passed over them.</param>
public sealed record CaliperTried(Side Side, double Turns, bool Passes) : JobEvent;

/// <summary>A corner's retraction was looked at: slot, boot, what was tried.</summary>
/// <param name="Side">The corner.</param>
/// <param name="Facts">What is known; replaces what was known before.</param>
public sealed record RetractionLookedAt(Side Side, RetractionFacts Facts) : JobEvent;

/// <summary>The car's fluid was looked at.</summary>
/// <param name="Facts">What is known; replaces what was known before.</param>
public sealed record FluidLookedAt(FluidFacts Facts) : JobEvent;

/// <summary>Fluid was drawn at a corner's bleed screw.</summary>
/// <param name="Side">The corner.</param>
/// <param name="Draw">The draw.</param>
public sealed record BleedDrawn(Side Side, BleedDraw Draw) : JobEvent;

/// <summary>A draw was struck out. It stays in the log and counts for nothing.</summary>
/// <param name="Side">The corner.</param>
/// <param name="DrawId">The draw.</param>
/// <param name="Reason">Why.</param>
public sealed record BleedDrawStruck(Side Side, Guid DrawId, string Reason) : JobEvent;

/// <summary>The pedal was held hard, and screws, banjos and pipes were looked at.</summary>
/// <param name="Seen">What was seen.</param>
public sealed record LeaksLookedAt(LeakInput Seen) : JobEvent;

/// <summary>Every piston of an opposed caliper was measured.</summary>
/// <param name="Side">The corner.</param>
/// <param name="Pistons">How far each stands proud.</param>
public sealed record PistonsMeasured(Side Side, IReadOnlyList<PistonProud> Pistons) : JobEvent;

/// <summary>Which way a star wheel is turned, seen through its hole.</summary>
public enum WheelWay
{
    /// <summary>Up.</summary>
    Up,
    /// <summary>Down.</summary>
    Down,
}

/// <summary>Which way loosened a star wheel: the vehicle remembers it.</summary>
/// <param name="Side">The corner.</param>
/// <param name="Loosens">The way that loosened it.</param>
/// <param name="HoleAt">Where the hole stood, as the hour of a clock, 1 to 12.</param>
public sealed record StarWheelNoted(Side Side, WheelWay Loosens, int HoleAt) : JobEvent;

/// <summary>A scan tool refused: nothing changed on the car.</summary>
/// <param name="Step">The step it was asked for.</param>
/// <param name="Report">What it said.</param>
public sealed record ToolRefused(StepKey Step, ToolReport Report) : JobEvent;

/// <summary>One fastener was torqued, or tightened in a way that could not be verified.</summary>
/// <param name="Step">The torque step.</param>
/// <param name="Index">Which of them, from 1.</param>
/// <param name="Line">The fastener line used.</param>
/// <param name="Set">The setting as shown; null when unverified.</param>
/// <param name="Wrench">The wrench; null when unverified.</param>
/// <param name="Crowfoot">The crowfoot, if one was used.</param>
/// <param name="Unit">The unit shown on the wrench.</param>
/// <param name="Verified">False when tightened with a spanner and marked: the lead must accept it.</param>
/// <param name="Reason">Why it could not be verified; of a verified one, why a figure that was asked about is right all the same.</param>
public sealed record TorqueSigned(
    StepKey Step, int Index, TorqueLine Line, TorqueSet? Set, Wrench? Wrench, Crowfoot? Crowfoot, TorqueUnit Unit, bool Verified, string? Reason) : JobEvent
{
    /// <summary>True when it has no figure anywhere and was accepted hand-tight.</summary>
    public bool HandTight { get; init; }

    /// <summary>True where it has no figure anywhere and waits for the lead's word. No figure stands for it in the line.</summary>
    public bool NoFigure { get; init; }
}

/// <summary>A stop sign was seen while retracting.</summary>
/// <param name="Side">The corner.</param>
/// <param name="Sign">The sign.</param>
/// <param name="Holds">True when the corner is held by it.</param>
/// <param name="Note">A note.</param>
public sealed record StopSignSeen(Side Side, StopSign Sign, bool Holds, string? Note) : JobEvent;

/// <summary>A pawl was lifted: a step had not been done after all. Voids it, and every later step that was not done either.</summary>
/// <param name="Target">The event lifted.</param>
/// <param name="Voided">It and its dependants.</param>
/// <param name="Reason">Why.</param>
/// <param name="Done">Later steps that were done all the same: they keep what they did to the metal and prove nothing. Null in an event of an earlier format, whose dependants are all voided.</param>
public sealed record PawlLifted(Guid Target, IReadOnlyList<Guid> Voided, string Reason, IReadOnlyList<Guid>? Done = null) : JobEvent;

/// <summary>Something was found that changes the job.</summary>
/// <param name="Kind">What.</param>
/// <param name="Side">The corner; null when it belongs to the car.</param>
/// <param name="Note">A note.</param>
public sealed record FindingReported(FindingKind Kind, Side? Side, string? Note) : JobEvent;

/// <summary>What the job is to end in was changed.</summary>
/// <param name="Goal">What it is to end in now.</param>
/// <param name="Reason">Why.</param>
public sealed record GoalChanged(JobGoal Goal, string Reason) : JobEvent;

/// <summary>A stop sign that held a corner was settled: the same caliper goes on.</summary>
/// <param name="Side">The corner.</param>
/// <param name="Sign">The sign.</param>
/// <param name="What">What was done.</param>
public sealed record StopSignSettled(Side Side, StopSign Sign, string What) : JobEvent;

/// <summary>The job waits for parts.</summary>
/// <param name="What">For what.</param>
/// <param name="From">From where.</param>
/// <param name="Expected">When they are expected; null when nobody knows.</param>
public sealed record PartsAwaited(string What, string From, DateOnly? Expected) : JobEvent;

/// <summary>The parts that were waited for have come.</summary>
public sealed record PartsCame : JobEvent;

/// <summary>The job was left overnight at a safe stopping point.</summary>
/// <param name="Kind">Which.</param>
/// <param name="Tags">What was tagged.</param>
public sealed record LeftOvernight(NightKind Kind, IReadOnlyList<string> Tags) : JobEvent;

/// <summary>Someone came back to a job that was left.</summary>
public sealed record CameBack : JobEvent;

/// <summary>The lead put somebody beside another for the rest of the job: they may do what they have not shown in practice.</summary>
/// <param name="TechnicianId">Who.</param>
/// <param name="Name">Their name.</param>
public sealed record WorksBeside(Guid TechnicianId, string Name) : JobEvent;

/// <summary>A note.</summary>
/// <param name="Text">The text.</param>
public sealed record NoteAdded(string Text) : JobEvent;

/// <summary>A photo. Its picture is kept by its hash beside the log; the log keeps which picture it was.</summary>
/// <param name="Sha256">SHA-256 of the picture's bytes as they are kept: 64 small hexadecimal digits.</param>
/// <param name="WidthPx">How wide, in pixels.</param>
/// <param name="HeightPx">How high, in pixels.</param>
/// <param name="Side">The corner that it shows; null for the car.</param>
/// <param name="Of">The report that it belongs to; null when it stands by itself.</param>
/// <param name="Caption">What it shows, in words.</param>
public sealed record PhotoTaken(string Sha256, int WidthPx, int HeightPx, Side? Side, Guid? Of, string Caption) : JobEvent, INamesBytes
{
    string INamesBytes.MediaType => "image/jpeg";
    string INamesBytes.Kind => "photo";
}

/// <summary>An event that names bytes which are kept beside the log and travel with the job.</summary>
public interface INamesBytes
{
    /// <summary>SHA-256 of the bytes.</summary>
    string Sha256 { get; }

    /// <summary>What they are, as RFC 6838 names it.</summary>
    string MediaType { get; }

    /// <summary>What they are, in a word.</summary>
    string Kind { get; }
}

/// <summary>Something was asked of the car over a link. It is recorded before anything moves.</summary>
/// <param name="Act">What.</param>
/// <param name="Step">The step that it does.</param>
/// <param name="Clear">Who said that their hands were clear.</param>
public sealed record RoutineAsked(ElectricAct Act, StepKey Step, IReadOnlyList<string> Clear) : JobEvent;

/// <summary>How what was asked over a link ended.</summary>
/// <param name="Asked">The event that asked.</param>
/// <param name="Status">How it ended; null where it was refused, or nobody knows.</param>
/// <param name="Left">How the left side, or the only motor, ended.</param>
/// <param name="Right">How the right side ended.</param>
/// <param name="Refused">Why it was refused, as ISO 14229-1 numbers it; null where it was not.</param>
/// <param name="Words">In words.</param>
/// <param name="Codes">Letters of the codes that were stored then.</param>
/// <param name="Battery">Voltage at the end; null where nobody knows.</param>
public sealed record RoutineEnded(
    Guid Asked,
    RoutineStatus? Status,
    SideEnd Left,
    SideEnd Right,
    int? Refused,
    string Words,
    IReadOnlyList<string> Codes,
    ElectricPotential? Battery) : JobEvent
{
    /// <summary>True where nobody knows how the brake stands.</summary>
    internal bool Lost => Refused is null && Status != RoutineStatus.Done && Stays is null;

    /// <summary>The side that did not go into service while the other is there; null where both went, or neither.</summary>
    internal Side? Stays => Status != RoutineStatus.Failed ? null
        : (Left == SideEnd.AtBackStop, Right == SideEnd.AtBackStop) switch { (true, false) => Side.Right, (false, true) => Side.Left, _ => null };

    /// <summary>Its codes in words.</summary>
    internal string CodesSay => string.Join("; ", Codes.Select(Electric.Words.Code));
}

/// <summary>A current trace. Its points are kept by their hash beside the log, as CSV; the log keeps how it was read.</summary>
/// <param name="Sha256">SHA-256 of its bytes as they are kept: 64 small hexadecimal digits.</param>
/// <param name="Side">The corner; of a motor that pulls both cables, left.</param>
/// <param name="From">Where it comes from: the link, or a clamp meter.</param>
/// <param name="Direction">What the motor did; null where nobody said.</param>
/// <param name="Reading">How it was read, with the engines' version.</param>
public sealed record TraceKept(string Sha256, Side Side, string From, TraceDirection? Direction, TraceReading Reading) : JobEvent, INamesBytes
{
    string INamesBytes.MediaType => "text/csv";
    string INamesBytes.Kind => "trace";
}

/// <summary>In practice: how a step is meant to be done, said before anything shows how.</summary>
/// <param name="Step">The step.</param>
/// <param name="Option">What was chosen, by its id.</param>
/// <param name="Says">The choice as it stood on its button.</param>
/// <param name="Set">What the wrench was set to, where it is about a torque; null otherwise.</param>
public sealed record PracticeAnswered(StepKey Step, string Option, string Says, UnitsNet.Torque? Set) : JobEvent;

/// <summary>In practice: a step was picked that the rules refuse. Nothing was done; what it would have come to is told.</summary>
/// <param name="Step">The step.</param>
/// <param name="Because">What it lacks.</param>
/// <param name="Broken">Interlocks that refuse it, by number.</param>
public sealed record PracticeTried(StepKey Step, IReadOnlyList<string> Because, IReadOnlyList<int> Broken) : JobEvent
{
    /// <summary>What it lacks, in short.</summary>
    public string Says() => Phrase.Some(Because);
}

/// <summary>In practice: something was touched and looked at.</summary>
/// <param name="Side">The corner; null for the car.</param>
/// <param name="Thing">What.</param>
/// <param name="Seen">What was seen.</param>
public sealed record PracticeLooked(Side? Side, PracticeThing Thing, string Seen) : JobEvent;

/// <summary>In practice: a gauge that is not there was read.</summary>
/// <param name="Side">The corner; null for the car.</param>
/// <param name="Kind">What was read.</param>
/// <param name="InstrumentId">With what; null where no instrument is needed.</param>
/// <param name="Value">What it showed, in the unit of its kind.</param>
public sealed record PracticeRead(Side? Side, ReadingKind Kind, string? InstrumentId, double Value) : JobEvent;

/// <summary>In practice: what is next was asked for.</summary>
/// <param name="Next">What it is; null where nothing is left.</param>
public sealed record PracticeHelped(StepKey? Next) : JobEvent;

/// <summary>In practice: back to before a harm. It stays in the debrief.</summary>
/// <param name="Target">The event that brought it.</param>
public sealed record PracticeReturned(Guid Target) : JobEvent;

/// <summary>In practice: it was ended, and is talked over.</summary>
public sealed record PracticeEnded : JobEvent;

/// <summary>An event with who, when and where in the order.</summary>
/// <param name="Id">Made by the client, so that sending twice adds once.</param>
/// <param name="Seq">Place in the job's order, from 1. The only order there is.</param>
/// <param name="Event">The event.</param>
/// <param name="TechnicianId">Who.</param>
/// <param name="Technician">The name at the time.</param>
/// <param name="OccurredAt">The client's clock; shown only beside the server's, where they differ.</param>
/// <param name="RecordedAt">The server's clock, UTC.</param>
public sealed record RecordedEvent(Guid Id, int Seq, JobEvent Event, Guid TechnicianId, string Technician, DateTimeOffset OccurredAt, DateTimeOffset RecordedAt)
{
    private static readonly TimeSpan Alike = TimeSpan.FromMinutes(5);

    /// <summary>When it was recorded, by the server's clock, in the time zone of whoever sent it.</summary>
    public DateTimeOffset At => RecordedAt.ToOffset(OccurredAt.Offset);

    /// <summary>The client's time, where it is more than 5 minutes from the server's: a clock that is wrong, or something sent late. Null otherwise.</summary>
    public DateTimeOffset? ClientAt => (OccurredAt - RecordedAt).Duration() > Alike ? OccurredAt : null;
}
