using PatientPawl.Core.Hydraulics;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Reasoning;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Vehicles;
using PatientPawl.Core.Workshop;
using UnitsNet;

namespace PatientPawl.Core.Jobs;

/// <summary>The retract bench of a corner: its log, its slot, its boot, and the other side beside it.</summary>
/// <param name="Log">The log.</param>
/// <param name="Alignment">How a slot comes to the pin's axis; null where the face has none or it was not looked at.</param>
/// <param name="Direction">Which way it is turned now: a change of direction turns it round; null for a push.</param>
/// <param name="SlotNow">Where that slot stands now, clockwise facing the piston.</param>
/// <param name="View">How the caliper is seen.</param>
/// <param name="Boot">The boot; null when it was not looked at.</param>
/// <param name="Sides">Left against right; null while one of them has no log.</param>
/// <param name="Opposed">How far each side of an opposed caliper goes back; null before it is measured, and where they are not opposed.</param>
/// <param name="Creep">Opposed pistons as their last round says; null before the first, and where they are not opposed.</param>
/// <param name="Reasons">Why.</param>
public sealed record RetractionBenchAnswer(LogAnswer Log, AlignmentAnswer? Alignment, TurnDirection? Direction, Angle? SlotNow, CaliperView View, BootAnswer? Boot, LogSides? Sides, OpposedTravel? Opposed, CreepAnswer? Creep, Reasons Reasons) : IReasoned;

/// <summary>A corner on the fluid bench.</summary>
/// <param name="Side">The corner.</param>
/// <param name="Bled">Where its bleeding stands.</param>
public sealed record CornerBled(Side Side, BleedAnswer Bled);

/// <summary>The fluid bench of a job.</summary>
/// <param name="Reservoir">The reservoir through the job; null until the level is read.</param>
/// <param name="Fluid">What may go in and how wet it is; null while neither cap nor sheet says.</param>
/// <param name="Strokes">Strokes of the pedal; null where the sheet gives no master cylinder, or nothing has gone back.</param>
/// <param name="Decision">Whether it is bled.</param>
/// <param name="Corners">Each corner's bleeding.</param>
/// <param name="Lacks">What is still wanted.</param>
/// <param name="Reasons">Why.</param>
public sealed record FluidBenchAnswer(ReservoirAnswer? Reservoir, FluidAnswer? Fluid, StrokesAnswer? Strokes, BleedDecision Decision, IReadOnlyList<CornerBled> Corners, IReadOnlyList<string> Lacks, Reasons Reasons) : IReasoned;

/// <summary>The retract and fluid benches as a job fills them.</summary>
public static partial class JobBenches
{
    /// <summary>The retract bench of a corner.</summary>
    /// <param name="state">The job.</param>
    /// <param name="side">The corner.</param>
    /// <param name="turnsNow">Turns counted since the last reading; null counts from it.</param>
    /// <exception cref="InputException">A count that cannot be.</exception>
    public static RetractionBenchAnswer Retraction(JobState state, Side side, double? turnsNow)
    {
        ArgumentNullException.ThrowIfNull(state);
        var log = Log(state, side, turnsNow);
        var other = Log(state, side == Side.Left ? Side.Right : Side.Left, null);
        var (file, piston) = (state.Corner(side), state.Opened!.Sheet.Piston);
        var facts = file.Retraction;
        var points = file.LogPoints();
        var direction = file.Ruled?.Ruling.Direction is { } first ? InStage(first, log.Stage) : (TurnDirection?)null;
        AlignmentAnswer? alignment = null;
        Angle? slot = null;
        if (facts.SlotAt is { } at && direction is { } way && piston.Slots > 0)
        {
            var count = Math.Max(turnsNow ?? 0, points.Select(p => p.Turns).DefaultIfEmpty(0).Max());
            var turned = Clockwise(points, file.Ruled!.Ruling.Direction!.Value, count) - Clockwise(points, file.Ruled.Ruling.Direction.Value, facts.SlotAtTurns ?? 0);
            slot = Angle.FromDegrees(((at.Degrees + turned * 360) % 360 + 360) % 360);
            var made = points.Count > 0 && log.Protrusion is { } now ? points.OrderBy(p => p.Stage).ThenBy(p => p.Turns).First().Protrusion - now : Length.Zero;
            Length? need = file.Travel is { } travel ? Length.FromMillimeters(Math.Clamp((travel.Need - made).Millimeters, 0, 100)) : null;
            alignment = PistonAlignment.Plan(new(piston.Slots, slot.Value, facts.Wanted ?? Angle.Zero, way, piston.TurnsFreelyAtHome,
                log.TurnsToGo is { } go ? Math.Min(go, 100) : file.Travel?.Turns is { } all && points.Count == 0 ? Math.Min(all, 100) : null, log.Fit?.Lead is { Millimeters: >= 0.1 and <= 10 } lead ? lead : piston.Lead, need, log.Home && piston.TurnsFreelyAtHome != Known.Yes, state.Setup.Rules.Alignment, state.Setup.Rules.BackOffLimit));
        }

        var boot = facts.Boot is { } b ? BootLook.Judge(b, piston.ResealAllowed, state.Setup.Rules.Boot) : null;
        var sides = log.Fit is not null && other.Fit is not null || log.MeanEffort is not null && other.MeanEffort is not null
            ? side == Side.Left ? RetractionLog.Compare(log, other) : RetractionLog.Compare(other, log) : null;
        var trail = new Trail("JobBenches.Retraction").Evidence("Log", log.Reasons.Lines[^1].Result);
        if (alignment is not null) trail.Evidence("Slot", alignment.Says);
        if (boot is not null) trail.Evidence("Boot", boot.Do);
        var creep = Creep(state, file.Pistons);
        if (creep is not null) trail.Evidence("Pistons", creep.Says);
        return new(log, alignment, direction, slot, PistonAlignment.Facing(side, facts.Place), boot, sides, JobMeasuring.Opposed(state, side), creep, trail.Conclude(log.Reasons.Lines[^1].Result).WouldChange("The next reading.").Done());
    }

    /// <summary>The fluid bench of a job.</summary>
    /// <param name="state">The job.</param>
    /// <param name="strokes">Strokes of the pedal counted; null before the first.</param>
    /// <param name="firm">True once the pedal is firm.</param>
    /// <exception cref="InputException">A count that cannot be.</exception>
    public static FluidBenchAnswer Fluid(JobState state, int? strokes, bool firm)
    {
        ArgumentNullException.ThrowIfNull(state);
        var sheet = state.Opened!.Sheet;
        List<string> lacks = [];
        var (still, back) = (StillToGoBack(state, null), AlreadyBack(state));
        var reservoir = state.LevelPercent is { } level ? Reservoir(state, level) : null;
        if (reservoir is null) lacks.Add("The level: look at the reservoir.");
        if (Sides.Both.All(s => state.Corner(s).Travel is null)) lacks.Add("How far the pistons go back: measure pads, rotor and protrusion.");

        var cap = state.Fluid.Cap ?? sheet.Hydraulics?.Fluid;
        if (cap is null) lacks.Add("What the reservoir's cap says.");
        var fluid = cap is { } grade ? BrakeFluid.Judge(new(grade, state.Fluid.Bottle, state.Fluid.WaterPercent, state.Fluid.HottestCelsius)) : null;
        StrokesAnswer? pedal = null;
        if (sheet.Hydraulics is not { MasterDiameter: { } d, MasterStroke: { } stroke }) lacks.Add("Master cylinder bore and stroke on the sheet: then the strokes can be counted.");
        else if (still.Length + back.Length > 0 && !state.HandedOver) pedal = PedalStrokes.Predict(new(d, stroke, sheet.Hydraulics.Split ?? CircuitSplit.ByAxle, state.Setup.Rules.PumpUp, [.. back, .. still], state.Setup.SimulatedPedal, strokes, firm));
        CornerBled[] corners = [.. Sides.Both.Select(s => new CornerBled(s, Bleeding.Follow(new(state.Fluid.Method, state.Corner(s).Draws, reservoir?.Spec ?? sheet.Reservoir, Math.Clamp(state.Corner(s).LevelPercent ?? state.LevelPercent ?? 100, 0, 150), null))))];
        var openings = Openings(state);
        if (corners.Any(c => c.Bled.RanDry)) openings.Add(new(CircuitOpening.ReservoirDry, null));
        var decision = Bleeding.Decide(openings, sheet.Hydraulics?.BleedOrder, state.Setup.Rules.Bleeding);
        var trail = new Trail("JobBenches.Fluid");
        if (reservoir is not null) trail.Evidence("Reservoir", reservoir.Says[0]);
        if (pedal is not null) trail.Evidence("Pedal", pedal.Says);
        return new(reservoir, fluid, pedal, decision, corners, lacks, trail.Evidence("Bleeding", decision.Says[0]).Conclude(reservoir?.Says[0] ?? decision.Says[0]).WouldChange("The level read again.").Done());
    }

    /// <summary>The reservoir through the job, the one answer for every step and bench of it: every piston that is measured and not back yet counts.</summary>
    /// <param name="state">The job.</param>
    /// <param name="level">Its level, per cent of MIN to MAX.</param>
    /// <param name="measured">A corner that is being measured now.</param>
    internal static ReservoirAnswer Reservoir(JobState state, double level, (Side Side, TravelResult Travel)? measured = null) =>
        FluidBench.Predict(new(state.Fluid.Sides is null ? state.Opened!.Sheet.Reservoir : null, state.Fluid.Sides, Math.Clamp(level, 0, 150), StillToGoBack(state, measured), state.Setup.Rules.FluidRoom, AlreadyBack(state)));

    private static CornerFluid[] StillToGoBack(JobState state, (Side Side, TravelResult Travel)? measured) =>
    [
        .. from side in Sides.Both
           let travel = measured is { } now && now.Side == side ? now.Travel : state.Corner(side).Travel
           where travel is not null && state.Car.Get(Corner.Piston, side) != Piston.Home && !state.Corner(side).StandsOff
           select FluidOf(state.Opened!.Sheet, side, travel),
    ];

    // Back, and not brought up again by the pedal yet.
    private static CornerFluid[] AlreadyBack(JobState state) =>
        [.. Sides.Both.Where(s => state.Corner(s) is { Travel: not null, StandsOff: true }).Select(s => FluidOf(state.Opened!.Sheet, s, state.Corner(s).Travel!))];

    /// <summary>The last round of an opposed caliper against the one before; null before the first.</summary>
    internal static CreepAnswer? Creep(JobState state, IReadOnlyList<IReadOnlyList<PistonProud>> rounds)
    {
        if (rounds.Count == 0) return null;
        var (before, now) = (rounds[Math.Max(rounds.Count - 2, 0)], rounds[^1]);
        Length Was(PistonProud p) => before.FirstOrDefault(b => (b.Bank, b.Number) == (p.Bank, p.Number))?.Proud ?? p.Proud;
        var piston = state.Opened!.Sheet.Piston;
        return CreepWatch.Watch([.. now.Select(p => new OpposedPiston(p.Bank, p.Number, Was(p), p.Proud))], piston.HomeProtrusion, piston.ProtrusionLimit);
    }

    private static TurnDirection InStage(TurnDirection first, int stage) =>
        stage % 2 == 1 ? first : first == TurnDirection.Clockwise ? TurnDirection.Anticlockwise : TurnDirection.Clockwise;

    /// <summary>Turns made clockwise by a count, those of a stage the other way taken off: a stage runs from the last line of the one before.</summary>
    private static double Clockwise(IReadOnlyList<LogPoint> points, TurnDirection first, double count)
    {
        var (sum, from, stage) = (0.0, 0.0, 1);
        foreach (var p in points.OrderBy(p => p.Stage).ThenBy(p => p.Turns))
        {
            var to = Math.Min(p.Turns, count);
            stage = p.Stage;
            sum += Math.Max(to - from, 0) * (InStage(first, stage) == TurnDirection.Clockwise ? 1 : -1);
            from = Math.Max(from, to);
        }

        return sum + Math.Max(count - from, 0) * (InStage(first, stage) == TurnDirection.Clockwise ? 1 : -1);
    }

    private static LogAnswer Log(JobState state, Side side, double? turnsNow)
    {
        var (file, piston, rules) = (state.Corner(side), state.Opened!.Sheet.Piston, state.Setup.Rules);
        var points = file.LogPoints();
        var ruling = file.Ruled?.Ruling;
        var turned = ruling?.Turned == true;
        // A default direction is proved by the face moving inward.
        var inward = points.Count > 1 && points.Max(p => p.Protrusion.Millimeters) - points[^1].Protrusion.Millimeters > 0.2;
        var checks = new StuckChecks(
            ruling is not null && file.Ruled is { MethodUndecided: false } ? Known.Yes : Known.NotKnown,
            !turned || ruling is { DirectionIsDefault: false } || inward || file.Retraction.OtherWayTried ? Known.Yes : Known.NotKnown,
            state.MechanismRelaxed(side) ? Known.Yes : Known.No,
            file.Retraction.RoomForFluid != Known.NotKnown ? file.Retraction.RoomForFluid : rules.FluidRoom == FluidRoomRule.OpenBleeder || state.Car.Get(Corner.Room, side) == Room.Enough ? Known.Yes : Known.NotKnown,
            file.Retraction.PressedHarder, file.Retraction.OtherWayTried);
        var other = state.Corner(side == Side.Left ? Side.Right : Side.Left).LogPoints().Where(p => p.Effort is not null && !p.Released).Select(p => p.Effort!.Value.NewtonMeters).ToArray();
        return RetractionLog.Follow(new(points, turned, piston.HomeProtrusion, turned ? piston.Lead : null, rules.RetractDepth == RetractDepthRule.AsFarAsNeeded ? file.Travel?.Travel : null, Bores(state.Opened.Sheet),
            file.Log.LastOrDefault()?.Gauge ?? InstrumentCatalogue.Find(state.Instruments, "depth-gauge") ?? InstrumentCatalogue.Get(InstrumentCatalogue.Defaults, "depth-gauge"), piston.TwoStage, piston.OtherWayAllowed, checks,
            other.Length > 0 ? UnitsNet.Torque.FromNewtonMeters(other.Average()) : null, turnsNow)
        {
            Felt = file.Retraction.Felt,
            OtherFelt = state.Corner(side.Other()).Retraction.Felt,
        });
    }

    private static List<Opening> Openings(JobState state)
    {
        List<Opening> list = [];
        foreach (var e in state.Standing.Select(e => e.Event))
        {
            if (e is StepDone { Step: { StepId: "old-caliper-away", Side: { } away } }) list.Add(new(CircuitOpening.CaliperRenewed, away));
            if (e is StepDone { Step: { Side: { } at } step } && OpensTheScrew(state, step.StepId)) list.Add(new(CircuitOpening.BleedScrewOpened, at));
        }

        list.AddRange(Sides.Both.Where(s => state.Car.Get(Corner.Hydraulics, s) == HydraulicsState.Open && list.TrueForAll(o => o.Side != s)).Select(s => new Opening(CircuitOpening.FluidShown, s)));
        return list;
    }

    private static bool OpensTheScrew(JobState state, string stepId) => stepId == "circuit-opened"
        || (stepId is "piston-home" or "piston-levered" or "piston-tried" && state.Setup.Rules.FluidRoom == FluidRoomRule.OpenBleeder);

    /// <summary>The fluid's side of a corner whose way home is known.</summary>
    internal static CornerFluid FluidOf(SpecSheet sheet, Side side, TravelResult travel) => new(side, Bores(sheet), travel.Travel, travel.Need, null) { Displaced = travel.Displaced };

    private static IReadOnlyList<Length> Bores(SpecSheet sheet) => [.. Enumerable.Repeat(sheet.Piston.Diameter, sheet.Piston.PistonsPerCaliper)];
}
