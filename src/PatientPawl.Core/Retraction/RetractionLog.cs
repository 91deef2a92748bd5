using PatientPawl.Core.Hydraulics;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Reasoning;
using PatientPawl.Core.Vehicles;
using UnitsNet;
using Effort = UnitsNet.Torque;

namespace PatientPawl.Core.Retraction;

/// <summary>One line of the log: how far it was turned or pressed, and how far the piston stood proud then.</summary>
/// <param name="Id">Made where it was taken, so that it can be struck out.</param>
/// <param name="Turns">Turns made so far, 0 to 200; strokes of the press where the piston is pushed.</param>
/// <param name="Protrusion">How far the piston stood proud, 0 to 100 mm.</param>
/// <param name="Stage">1 to 9: a change of direction begins the next one.</param>
/// <param name="Released">True when the tool had let go.</param>
/// <param name="Effort">Torque at the tool, 0 to 200 N m; null when it was not felt for.</param>
public sealed record LogPoint(Guid Id, double Turns, Length Protrusion, int Stage = 1, bool Released = false, Effort? Effort = null);

/// <summary>What must be right before a piston that does not move counts as stuck.</summary>
/// <param name="MethodRight">The method is the one ruled for.</param>
/// <param name="DirectionRight">The direction is known to be right: from the sheet, or proved.</param>
/// <param name="MechanismRelaxed">Cable slack and lever on its stop, or spindle back.</param>
/// <param name="RoomForFluid">The fluid can leave: room in the reservoir, hose not collapsed or pinched.</param>
/// <param name="PressedHarder">More axial pressure has been tried.</param>
/// <param name="OtherWayTried">The other direction has been tried where the sheet allows it.</param>
public sealed record StuckChecks(Known MethodRight, Known DirectionRight, Known MechanismRelaxed, Known RoomForFluid, bool PressedHarder, bool OtherWayTried)
{
    /// <summary>Nothing checked.</summary>
    public static StuckChecks None { get; } = new(Known.NotKnown, Known.NotKnown, Known.NotKnown, Known.NotKnown, false, false);
}

/// <summary>What the log is followed with.</summary>
/// <param name="Points">The lines that stand, at most 200.</param>
/// <param name="Turned">True where the piston is turned, false where it is pushed.</param>
/// <param name="HomeProtrusion">How far it stands proud when home, 0 to 50 mm; null when the sheet does not say.</param>
/// <param name="Lead">The sheet's travel a turn, 0.1 to 10 mm; null when it is silent.</param>
/// <param name="Travel">Travel to make from the first line on, where it is less than all the way home; null goes home.</param>
/// <param name="Bores">The pistons' bores, 10 to 100 mm each; empty leaves the fluid out.</param>
/// <param name="Gauge">What the protrusion is measured with.</param>
/// <param name="TwoStage">The sheet says that it goes home one way and then the other.</param>
/// <param name="OtherWayAllowed">The sheet allows the other direction to be tried.</param>
/// <param name="Checks">What has been made sure of.</param>
/// <param name="OtherEffort">Mean torque on the other side; null when it was not felt for.</param>
/// <param name="TurnsNow">Turns counted since, without a reading, 0 to 200; null counts from the last line.</param>
public sealed record LogInput(
    IReadOnlyList<LogPoint> Points, bool Turned, Length? HomeProtrusion, Length? Lead, Length? Travel, IReadOnlyList<Length> Bores, Instrument Gauge, bool TwoStage, bool OtherWayAllowed,
    StuckChecks Checks, Effort? OtherEffort, double? TurnsNow)
{
    /// <summary>How hard it goes by feel; null when nobody said.</summary>
    public FeltEffort? Felt { get; init; }

    /// <summary>How hard the other side went by feel; null when nobody said.</summary>
    public FeltEffort? OtherFelt { get; init; }
}

/// <summary>The line through the present stage.</summary>
/// <param name="Lead">Travel a turn, or a stroke: the slope turned round. Below 0 when it comes out.</param>
/// <param name="LeadError">Its standard error; two lines give root 2 of the gauge's doubt over the turns between.</param>
/// <param name="AtZero">Where the line stands at 0 turns.</param>
/// <param name="Readings">How many lines it goes through.</param>
public sealed record LogFit(Length Lead, Length LeadError, Length AtZero, int Readings);

/// <summary>What the log finds.</summary>
public enum LogFindingKind
{
    /// <summary>It comes out.</summary>
    ComingOut,
    /// <summary>It turns and does not go in.</summary>
    SpinningFree,
    /// <summary>It has stopped, short of home.</summary>
    StoppedShort,
    /// <summary>It springs back when the tool lets go.</summary>
    SpringsBack,
    /// <summary>It goes harder than the other side.</summary>
    HarderThanOther,
    /// <summary>It is home.</summary>
    Home,
    /// <summary>It has stopped a hair short of home.</summary>
    NearlyHome,
    /// <summary>Everything is right and still it does not move.</summary>
    Stuck,
}

/// <summary>A finding with what to do.</summary>
/// <param name="Kind">Which.</param>
/// <param name="Name">Its name.</param>
/// <param name="Says">What was seen, with its figures.</param>
/// <param name="Do">What to do now.</param>
/// <param name="Stop">True when nothing more is turned or pressed until it is settled.</param>
public sealed record LogFinding(LogFindingKind Kind, string Name, string Says, string Do, bool Stop);

/// <summary>What the log says now.</summary>
/// <param name="Fit">The line through the present stage; null before two lines at different turns.</param>
/// <param name="Stage">The present stage; 1 before the first line.</param>
/// <param name="TurnsToGo">Turns or strokes still to make, never below 0; null while nothing says so.</param>
/// <param name="TurnsToGoError">Its standard error; null when it comes from the sheet's lead.</param>
/// <param name="TurnsAtTarget">Where the count will stand then.</param>
/// <param name="FromSheet">True when the sheet's lead gave it, for want of two lines.</param>
/// <param name="Target">The protrusion it is brought to.</param>
/// <param name="Protrusion">Where the piston stands now, by the line when turns were counted since the last reading.</param>
/// <param name="TravelToGo">Travel still to make.</param>
/// <param name="FluidToCome">Fluid that still comes back.</param>
/// <param name="MeanEffort">Mean torque at the tool.</param>
/// <param name="Findings">What is found, the gravest first.</param>
/// <param name="Stuck">True when it condemns the caliper.</param>
/// <param name="Home">True when it is home.</param>
/// <param name="Reasons">Why.</param>
public sealed record LogAnswer(
    LogFit? Fit, int Stage, double? TurnsToGo, double? TurnsToGoError, double? TurnsAtTarget, bool FromSheet, Length? Target, Length? Protrusion, Length? TravelToGo, Volume? FluidToCome,
    Effort? MeanEffort, IReadOnlyList<LogFinding> Findings, bool Stuck, bool Home, Reasons Reasons) : IReasoned;

/// <summary>Left and right compared as they go home.</summary>
/// <param name="LeadDifference">Left lead less right lead; null while one of them is not fitted.</param>
/// <param name="LeadsAlike">True when they lie within two standard errors of each other.</param>
/// <param name="EffortRatio">The harder over the easier; null while one of them was not felt for.</param>
/// <param name="Harder">The suspect, when the ratio is over 2.</param>
/// <param name="Says">In words.</param>
/// <param name="Reasons">Why.</param>
public sealed record LogSides(Length? LeadDifference, bool LeadsAlike, double? EffortRatio, Side? Harder, IReadOnlyList<string> Says, Reasons Reasons) : IReasoned;

/// <summary>Follows a piston home, reading by reading.</summary>
[Engine]
public static class RetractionLog
{
    /// <summary>How far in mm from its home figure a piston still counts as home: 0.3. Common practice, no source.</summary>
    internal const double HomeWithin = 0.3;

    private const double OutBy = 0.2, SprungBy = 0.5, FarFromHome = 1.0, HarderBy = 2, Moves = 0.05, Hair = 1e-9;

    /// <summary>
    /// Least squares over the present stage: lead = -slope. T_home = mean(x) + (home - mean(y)) / slope; turns to go = T_home - last, never
    /// below 0, with standard error (s / |slope|) root(1/n + (T_home - mean(x))² / Sxx). Two lines take the gauge's doubt for s.
    /// </summary>
    /// <exception cref="InputException">Naming each figure outside its range.</exception>
    public static LogAnswer Follow(LogInput input)
    {
        ArgumentNullException.ThrowIfNull(input);
        Check(input);
        var trail = new Trail("RetractionLog.Follow");
        var stage = input.Points.Count == 0 ? 1 : input.Points.Max(p => p.Stage);
        // Lines are kept in the order of the count: one struck out and taken again comes back to its place.
        var present = input.Points.Where(p => p.Stage == stage).OrderBy(p => p.Turns).ToArray();
        var turning = present.Where(p => !p.Released).ToArray();
        var home = input.HomeProtrusion?.Millimeters;
        var first = input.Points.Count == 0 ? (double?)null : input.Points.OrderBy(p => p.Stage).ThenBy(p => p.Turns).First().Protrusion.Millimeters;
        double? target = input.Travel is { } less && first is { } from ? Math.Max(from - less.Millimeters, home ?? double.MinValue) : home;
        var unit = input.Turned ? "turn" : "stroke";
        var u = input.Gauge.StandardUncertainty().Millimeters;
        trail.Input("Lines", $"{turning.Length} in stage {stage}, {input.Gauge.Name.ToLowerInvariant()}");
        if (home is { } h) trail.Input("Home", $"{Figure.Of(h)} mm proud", "spec-sheet");

        var line = Line.Through(turning, u);
        LogFit? fit = null;
        if (line is { } l)
        {
            fit = new(Length.FromMillimeters(-l.Slope), Length.FromMillimeters(l.SlopeError), Length.FromMillimeters(l.Intercept), turning.Length);
            trail.Formula("Travel a " + unit, "least squares over the present stage: - slope", string.Join(", ", turning.Select(p => $"({Figure.Of(p.Turns)}, {Figure.Of(p.Protrusion.Millimeters)})")), $"{Figure.Of(-l.Slope)} mm", "student-t");
            trail.Formula("Its standard error", turning.Length == 2 ? "root 2 × u / turns between" : "s / root Sxx", turning.Length == 2 ? $"1.414 × {Figure.Of(u, 4)} / {Figure.Of(turning[^1].Turns - turning[0].Turns)}" : $"{Figure.Of(l.S, 4)} / root {Figure.Of(l.Sxx)}", $"{Figure.Of(l.SlopeError, 4)} mm", "gum");
        }

        var last = turning.Length > 0 ? turning[^1] : null;
        var at = Math.Max(input.TurnsNow ?? 0, last?.Turns ?? 0);
        var (toGo, error, atTarget, fromSheet) = ToGo(trail, input, line, last, target, at, unit);
        double? stands = last is null ? null : present[^1].Released && at <= last.Turns ? present[^1].Protrusion.Millimeters
            : at <= last.Turns ? last.Protrusion.Millimeters
            : line is { Slope: < 0 } now ? now.Intercept + now.Slope * at : line is null && input.Lead is { } lead ? last.Protrusion.Millimeters - lead.Millimeters * (at - last.Turns) : last.Protrusion.Millimeters;
        double? left = stands is { } y && target is { } t ? Math.Max(y - t, 0) : null;

        var efforts = turning.Where(p => p.Effort is not null).Select(p => p.Effort!.Value.NewtonMeters).ToArray();
        Effort? mean = efforts.Length > 0 ? Effort.FromNewtonMeters(efforts.Average()) : null;
        var findings = Findings(input, present, turning, stage, mean, unit, target);
        foreach (var f in findings) trail.Evidence(f.Name, f.Says, "practice-log");
        var isHome = findings.Any(f => f.Kind == LogFindingKind.Home);
        trail.Conclude(findings.Count > 0 ? findings[0].Do : toGo is { } n ? $"{Figure.Of(n, 1)} {unit}s to go{(error is { } e and >= 0.005 ? $", give or take {Figure.Of(e, 2)}" : "")}." : "Go on, and note how far it stands proud.")
            .WouldChange("The next reading.");
        return new(fit, stage, toGo, error, atTarget, fromSheet, Mm(target), Mm(stands), Mm(left), left is { } go && input.Bores.Count > 0 ? DisplacedFluid.Volume(input.Bores, Length.FromMillimeters(go)) : null,
            mean, findings, findings.Any(f => f.Kind == LogFindingKind.Stuck), isHome, trail.Done());
    }

    /// <summary>Compares the two sides: leads within two standard errors of each other, effort within a ratio of 2.</summary>
    public static LogSides Compare(LogAnswer left, LogAnswer right)
    {
        ArgumentNullException.ThrowIfNull(left);
        ArgumentNullException.ThrowIfNull(right);
        var trail = new Trail("RetractionLog.Compare");
        List<string> says = [];
        // One that does not move has no lead to compare.
        double? difference = left.Fit is { Lead.Millimeters: > Moves } a && right.Fit is { Lead.Millimeters: > Moves } b ? a.Lead.Millimeters - b.Lead.Millimeters : null;
        var alike = true;
        if (difference is { } d)
        {
            // Exact figures have no doubt of their own; a hundredth of a millimetre a turn is none of theirs either.
            var doubt = Math.Max(2 * Math.Sqrt(Math.Pow(left.Fit!.LeadError.Millimeters, 2) + Math.Pow(right.Fit!.LeadError.Millimeters, 2)), 0.01);
            alike = Math.Abs(d) <= doubt + Hair;
            trail.Formula("Leads apart", "left - right, against 2 standard errors", $"{Figure.Of(left.Fit.Lead.Millimeters)} - {Figure.Of(right.Fit.Lead.Millimeters)}, {Figure.Of(doubt)}", $"{Figure.Of(d)} mm", "gum");
            says.Add(alike ? "Both sides go in alike." : $"A turn moves left {Figure.Of(left.Fit.Lead.Millimeters, 2)} mm and right {Figure.Of(right.Fit.Lead.Millimeters, 2)} mm: are both calipers the same part?");
        }

        double? ratio = left.MeanEffort is { NewtonMeters: > 0 } x && right.MeanEffort is { NewtonMeters: > 0 } y ? Math.Max(x / y, y / x) : null;
        Side? harder = ratio >= HarderBy - Hair ? left.MeanEffort > right.MeanEffort ? Side.Left : Side.Right : null;
        if (ratio is { } r)
        {
            trail.Formula("Effort", "harder / easier", $"{Figure.Of(Math.Max(left.MeanEffort!.Value.NewtonMeters, right.MeanEffort!.Value.NewtonMeters), 1)} / {Figure.Of(Math.Min(left.MeanEffort.Value.NewtonMeters, right.MeanEffort.Value.NewtonMeters), 1)}", Figure.Of(r, 2), "practice-log");
            if (harder is { } side) says.Add($"The {side.Word()} side goes {Figure.Of(r, 1)} times as hard as the other: suspect that caliper, and note it.");
        }

        return new(Mm(difference), alike, ratio, harder, says, trail.Conclude(says.Count > 0 ? says[^1] : "Too few readings to compare the sides.").WouldChange("Readings on the other side.").Done());
    }

    private static (double? ToGo, double? Error, double? AtTarget, bool FromSheet) ToGo(Trail trail, LogInput input, Line? line, LogPoint? last, double? target, double at, string unit)
    {
        if (target is not { } t || last is null) return default;
        // A line that comes out, or hardly moves, leads nowhere near home.
        if (line is { Slope: < -0.02 } l)
        {
            var there = l.MeanX + (t - l.MeanY) / l.Slope;
            var error = l.S / Math.Abs(l.Slope) * Math.Sqrt(1.0 / l.Count + Math.Pow(there - l.MeanX, 2) / l.Sxx);
            var go = Math.Max(there - at, 0);
            trail.Formula("Count at the end", $"mean of {unit}s + (end - mean proud) / slope", $"{Figure.Of(l.MeanX)} + ({Figure.Of(t)} - {Figure.Of(l.MeanY)}) / {Figure.Of(l.Slope)}", Figure.Of(there, 2), "student-t")
                .Formula("Still to go", "count at the end - count now, never below 0", $"{Figure.Of(there, 2)} - {Figure.Of(at, 2)}", error >= 0.005 ? $"{Figure.Of(go, 2)}, give or take {Figure.Of(error, 2)}" : Figure.Of(go, 2), "student-t");
            return (go, error, there, false);
        }

        if (line is not null || input.Lead is not { } lead || !input.Turned) return default;
        var end = last.Turns + (last.Protrusion.Millimeters - t) / lead.Millimeters;
        var left = Math.Max(end - at, 0);
        trail.Formula("Still to go", "(proud - end) / the sheet's lead", $"({Figure.Of(last.Protrusion.Millimeters)} - {Figure.Of(t)}) / {Figure.Of(lead.Millimeters)}", Figure.Of(left, 2), "spec-sheet");
        return (left, null, end, true);
    }

    private static List<LogFinding> Findings(LogInput input, LogPoint[] present, LogPoint[] turning, int stage, Effort? mean, string unit, double? target)
    {
        List<LogFinding> found = [];
        if (turning.Length == 0) return FeltHarder(input) is { } felt ? [felt] : [];
        var last = turning[^1];
        var y = last.Protrusion.Millimeters;
        double? fromHome = input.HomeProtrusion is { } home ? y - home.Millimeters : null;

        // Loaded readings only: a release between two of them starts the comparison anew. The first of a stage is compared with the last of the one before.
        var loaded = present[(Array.FindLastIndex(present, p => p.Released) + 1)..];
        LogPoint[] earlier = [.. input.Points.Where(p => p.Stage == stage - 1 && !p.Released).OrderBy(p => p.Turns).TakeLast(1).Where(_ => loaded.Length == present.Length), .. loaded.Take(loaded.Length - 1)];
        if (loaded.Length > 0 && earlier.Length > 0 && y - earlier.Min(p => p.Protrusion.Millimeters) is var rise && rise > OutBy + Hair)
            found.Add(new(LogFindingKind.ComingOut, "Coming out", $"It came out by {Figure.Of(rise, 2)} mm.", input.Turned ? "Wrong direction: reverse now, and look that it goes in." : "Stop pressing: something pushes it out. Look at the opposite piston and the mechanism.", true));
        if (present[^1] is { Released: true } after && after.Protrusion.Millimeters - Before(present) is { } sprung && sprung > SprungBy + Hair)
            found.Add(new(LogFindingKind.SpringsBack, "Springs back", $"It came back by {Figure.Of(sprung, 2)} mm when the tool was released.", "Stop. The parking mechanism is still loaded, or the fluid cannot leave: suspect a collapsed hose.", true));

        var isHome = fromHome <= HomeWithin + Hair;
        var equal = EqualRun(input, turning);
        var stopped = false;
        if (isHome)
        {
            var deep = fromHome < -HomeWithin - Hair;
            found.Add(new(LogFindingKind.Home, "Home", $"It stands {Figure.Of(y, 2)} mm proud; home is {Figure.Of(input.HomeProtrusion!.Value.Millimeters, 2)} mm.",
                deep ? "Home, and measured deeper than the sheet's figure: is it the same land?" : "Home. Stop here; never force it on.", true));
        }
        else if (equal.Length >= 3 && fromHome is null)
        {
            stopped = true;
        }
        else if (equal.Length >= 3)
        {
            // A hair short of home gets one more turn before it counts as stopped.
            stopped = fromHome > FarFromHome + Hair || equal[^1].Turns - equal[2].Turns >= 1 - Hair;
            var enough = target is { } t && y <= t + HomeWithin;
            if (!stopped || enough)
            {
                stopped = false;
                found.Add(enough ? new(LogFindingKind.NearlyHome, "Nearly home", $"{Figure.Of(fromHome!.Value, 2)} mm from home and no longer moving.", "It is as far in as the new parts need: good enough.", false) : new(LogFindingKind.NearlyHome, "Nearly home", $"{Figure.Of(fromHome!.Value, 2)} mm from home and no longer moving.", $"One more {unit}, no harder than before. If it still reads the same, it has stopped short.", false));
            }
        }

        var second = input.TwoStage && stage == 1;
        var (free, slow) = stopped || isHome || found.Exists(f => f.Kind == LogFindingKind.NearlyHome) || !input.Turned ? (false, 0) : Free(input, turning, fromHome);
        if (stopped)
        {
            var says = $"Three readings alike at {Figure.Of(y, 2)} mm{(fromHome is { } f ? $", {Figure.Of(f, 1)} mm from home" : "")}.";
            found.Add(new(LogFindingKind.StoppedShort, second ? "First stage done" : "Stopped short", says, second ? "Now the other direction, until it is home."
                : fromHome is null ? "Stop, and find out where home is: the sheet, or how far the other side's piston went in. Standing still condemns nothing by itself."
                : Unsettled(input.Checks) ?? "Stop. Never force it.", !second));
            // Within a millimetre of home, or with home unknown, nothing is condemned by standing still.
            if (!second && fromHome > FarFromHome + Hair && Unsettled(input.Checks) is null) found.Add(Stuck(says));
        }
        else if (free)
        {
            var says = $"A whole turn moved it {Figure.Of(slow, 2)} mm.";
            var otherWay = input.OtherWayAllowed && !input.Checks.OtherWayTried;
            var next = !input.Checks.PressedHarder ? "More pressure along the piston as you turn." : otherWay ? "The sheet allows the other direction: half a turn, and look." : Unsettled(input.Checks) ?? "Treat it as stuck.";
            found.Add(new(LogFindingKind.SpinningFree, "Spinning free", says, next, false));
            if (!second && fromHome is not null && input.Checks.PressedHarder && !otherWay && Unsettled(input.Checks) is null) found.Add(Stuck(says));
        }

        if (mean is { } m && input.OtherEffort is { NewtonMeters: > 0 } other && m / other >= HarderBy - Hair)
            found.Add(new(LogFindingKind.HarderThanOther, "Harder than the other", $"{Figure.Of(m.NewtonMeters, 1)} N m here, {Figure.Of(other.NewtonMeters, 1)} on the other side.", "Suspect this caliper, and note it.", false));
        else if (FeltHarder(input) is { } byFeel) found.Add(byFeel);
        return [.. found.OrderBy(f => f.Kind switch { LogFindingKind.Stuck => 0, LogFindingKind.SpringsBack => 1, LogFindingKind.ComingOut => 2, _ => 3 })];
    }

    // Two grades apart: easy against hard, and nothing less.
    private static LogFinding? FeltHarder(LogInput input) => input is { Felt: FeltEffort.Hard, OtherFelt: FeltEffort.Easy }
        ? new(LogFindingKind.HarderThanOther, "Harder than the other", "Hard here, easy on the other side.", "Suspect this caliper, and note it.", false) : null;

    private static LogFinding Stuck(string says) => new(LogFindingKind.Stuck, "Stuck",
        $"{says} Method and direction are right, the mechanism is relaxed and the fluid can leave.", "The caliper is condemned: a new one, and bleeding. Forcing it is never the answer.", true);

    /// <summary>What has to be settled before it counts as stuck; null when everything is.</summary>
    private static string? Unsettled(StuckChecks c) =>
        c.MethodRight != Known.Yes ? "Settle first: is this the right method for this caliper?"
        : c.DirectionRight != Known.Yes ? "Settle first: is the direction right? It is proved only when the face has moved inward."
        : c.MechanismRelaxed != Known.Yes ? "Settle first: cable slack and lever on its stop, or the spindle back?"
        : c.RoomForFluid != Known.Yes ? "Settle first: can the fluid leave? Room in the reservoir, hose sound and not pinched."
        : null;

    private static double? Before(LogPoint[] present) => present.Take(present.Length - 1).LastOrDefault(p => !p.Released)?.Protrusion.Millimeters;

    /// <summary>
    /// The last readings that are equal within the gauge's repeatability, at rising counts. They count once they span a whole turn, or a way on which a free
    /// piston would have moved five times the gauge's doubt; and not while they still creep in by what the gauge can tell.
    /// </summary>
    private static LogPoint[] EqualRun(LogInput input, LogPoint[] turning)
    {
        var alike = (input.Gauge.Repeatability ?? input.Gauge.Resolution).Millimeters + Hair;
        List<LogPoint> run = [];
        var (low, high) = (double.MaxValue, double.MinValue);
        for (var i = turning.Length - 1; i >= 0; i--)
        {
            var p = turning[i].Protrusion.Millimeters;
            (low, high) = (Math.Min(low, p), Math.Max(high, p));
            if (high - low > alike) break;
            // Two readings at one count, or so close that a moving piston would read the same, are one.
            if (run.Count > 0 && (run[^1].Turns - turning[i].Turns <= Hair || input.Lead is { } lead && lead.Millimeters * (run[^1].Turns - turning[i].Turns) <= alike)) continue;
            run.Add(turning[i]);
        }

        run.Reverse();
        // By how far a free piston goes: the sheet's, or what this one did before it stood still.
        var before = turning[..^run.Count];
        var usual = input.Lead?.Millimeters ?? (before.Length >= 2 && Line.Through(before, 1) is { Slope: < 0 } moved ? -moved.Slope : null as double?);
        var fiveDoubts = 5 * input.Gauge.StandardUncertainty().Millimeters;
        while (run.Count >= 3)
        {
            var span = run[^1].Turns - run[0].Turns;
            if (span < 1 - Hair && !(usual * span >= fiveDoubts)) return [];
            if (usual is { } rate && rate * span < Math.Min(fiveDoubts, rate)) return [];
            // What is still creeping in is not standing still: only what came after the last step of it counts.
            if (run[0].Protrusion.Millimeters - run[^1].Protrusion.Millimeters < input.Gauge.Resolution.Millimeters - Hair) break;
            run.RemoveAt(0);
        }

        return [.. run];
    }

    /// <summary>Less than a quarter of the expected lead over a whole turn, more than 1 mm from home.</summary>
    private static (bool Free, double Moved) Free(LogInput input, LogPoint[] turning, double? fromHome)
    {
        if (fromHome <= FarFromHome) return (false, 0);
        var last = turning[^1];
        var before = Array.FindLastIndex(turning, p => p.Turns <= last.Turns - 1 + Hair);
        if (before < 0) return (false, 0);
        var expected = input.Lead?.Millimeters ?? (before >= 1 && Line.Through(turning[..(before + 1)], 1) is { Slope: < 0 } earlier ? -earlier.Slope : (double?)null);
        if (expected is not { } lead) return (false, 0);
        var turned = last.Turns - turning[before].Turns;
        var moved = turning[before].Protrusion.Millimeters - last.Protrusion.Millimeters;
        return (moved / turned < lead / 4 - Hair && moved > -OutBy, moved);
    }

    private static void Check(LogInput input)
    {
        var checks = new Checks().Millimetres("homeProtrusionMm", input.HomeProtrusion, 0, 50).Millimetres("leadMm", input.Lead, 0.1, 10).Millimetres("travelMm", input.Travel, 0, 100)
            .Range("otherEffortNm", input.OtherEffort?.NewtonMeters, 0, 200, "N m").Range("turnsNow", input.TurnsNow, 0, 200, "turns").Range("points", input.Points.Count, 0, 200, "").Range("boresMm", input.Bores.Count, 0, 12, "");
        foreach (var b in input.Bores) checks.Millimetres("boresMm", b, 10, 100);
        foreach (var p in input.Points) CheckInto(checks, p);
        checks.ThrowIfAny();
    }

    /// <summary>Refuses a line that cannot be.</summary>
    internal static void CheckInto(Checks checks, LogPoint p) => checks.Range("turns", p.Turns, 0, 200, "turns").Millimetres("protrusionMm", p.Protrusion, 0, 100).Range("stage", p.Stage, 1, 9, "").Range("effortNm", p.Effort?.NewtonMeters, 0, 200, "N m");

    private static Length? Mm(double? value) => value is { } v ? Length.FromMillimeters(v) : null;

    private sealed record Line(double MeanX, double MeanY, double Slope, double Intercept, double S, double Sxx, int Count)
    {
        public double SlopeError => S / Math.Sqrt(Sxx);

        /// <summary>The line through the points; null when they stand at one count. With two there is no residual: the gauge's doubt takes its place.</summary>
        public static Line? Through(LogPoint[] points, double u)
        {
            if (points.Length < 2) return null;
            var (x, y) = (points.Average(p => p.Turns), points.Average(p => p.Protrusion.Millimeters));
            var sxx = points.Sum(p => Math.Pow(p.Turns - x, 2));
            if (sxx < 1e-6) return null;
            var slope = points.Sum(p => (p.Turns - x) * (p.Protrusion.Millimeters - y)) / sxx;
            var rest = points.Sum(p => Math.Pow(p.Protrusion.Millimeters - y - slope * (p.Turns - x), 2));
            return new(x, y, slope, y - slope * x, points.Length == 2 ? u : Math.Sqrt(rest / (points.Length - 2)), sxx, points.Length);
        }
    }
}
