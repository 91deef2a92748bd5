using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Reasoning;
using UnitsNet;

namespace PatientPawl.Core.Pads;

/// <summary>The pad on the piston's side or the far one.</summary>
public enum PadPosition
{
    /// <summary>Inner, at the piston.</summary>
    Inner,
    /// <summary>Outer.</summary>
    Outer,
}

/// <summary>An end of a pad, as the rotor passes it rolling forward.</summary>
public enum PadEnd
{
    /// <summary>Where the rotor enters.</summary>
    Leading,
    /// <summary>Where it leaves.</summary>
    Trailing,
}

/// <summary>One lining thickness.</summary>
/// <param name="Side">The corner.</param>
/// <param name="Pad">Inner or outer.</param>
/// <param name="End">Which end.</param>
/// <param name="Lining">Lining without its backing, 0 to 40 mm.</param>
/// <param name="Instrument">What it was taken with.</param>
public sealed record PadReading(Side Side, PadPosition Pad, PadEnd End, Length Lining, Instrument Instrument);

/// <summary>The pads' figures.</summary>
/// <param name="NewInner">Lining of a new inner pad, 2 to 40 mm.</param>
/// <param name="NewOuter">Lining of a new outer pad.</param>
/// <param name="Minimum">Least lining, 0.5 to 20 mm; null uses the flagged default 2.0 mm.</param>
/// <param name="FrontLeast">Thinnest front lining, for comparing; null when not measured.</param>
public sealed record PadSheet(Length NewInner, Length NewOuter, Length? Minimum, Length? FrontLeast = null);

/// <summary>One pad judged.</summary>
/// <param name="Side">The corner.</param>
/// <param name="Pad">Inner or outer.</param>
/// <param name="Leading">Leading end; null when not read.</param>
/// <param name="Trailing">Trailing end; null when not read.</param>
/// <param name="Thinnest">The thinner end.</param>
/// <param name="PercentLeft">(now - minimum) / (new - minimum), at least 0.</param>
/// <param name="Minimum">Its verdict.</param>
public sealed record PadJudged(Side Side, PadPosition Pad, Length? Leading, Length? Trailing, Length Thinnest, double PercentLeft, LimitVerdict Minimum);

/// <summary>A pattern of wear.</summary>
public enum PadPattern
{
    /// <summary>Inner much thinner than outer.</summary>
    InnerThin,
    /// <summary>Outer much thinner than inner.</summary>
    OuterThin,
    /// <summary>Tapered end to end.</summary>
    Tapered,
    /// <summary>One side of the axle much thinner.</summary>
    OneSideThin,
    /// <summary>Rear thinner than front.</summary>
    RearThin,
    /// <summary>Both even and thin.</summary>
    EvenThin,
    /// <summary>Every lining worn through: no cause is read from it.</summary>
    WornThrough,
}

/// <summary>What a check showed.</summary>
public enum CheckAnswer
{
    /// <summary>Not made.</summary>
    NotMade,
    /// <summary>It confirms the cause.</summary>
    Confirms,
    /// <summary>It rules the cause out.</summary>
    RulesOut,
}

/// <summary>A cause with the check that confirms it.</summary>
/// <param name="Id">Its id, for the answer.</param>
/// <param name="Says">The cause.</param>
/// <param name="Check">The check.</param>
/// <param name="Confirms">What the check shows when it is this cause.</param>
/// <param name="Answer">What the check showed.</param>
public sealed record PadCause(string Id, string Says, string Check, string Confirms, CheckAnswer Answer);

/// <summary>A pattern found, with its causes ranked.</summary>
/// <param name="Pattern">The pattern.</param>
/// <param name="Side">The corner it was found at; null for the axle.</param>
/// <param name="Says">The pattern with its figures.</param>
/// <param name="Causes">Causes, likeliest first: confirmed before open before ruled out.</param>
public sealed record PadFinding(PadPattern Pattern, Side? Side, string Says, IReadOnlyList<PadCause> Causes);

/// <summary>An answer to a cause's check.</summary>
/// <param name="CauseId">The cause.</param>
/// <param name="Side">The corner; null for the axle.</param>
/// <param name="Answer">What it showed.</param>
public sealed record CauseChecked(string CauseId, Side? Side, CheckAnswer Answer);

/// <summary>The four pads judged.</summary>
/// <param name="Pads">Each pad read, left inner first.</param>
/// <param name="Thinnest">The one that decides.</param>
/// <param name="Verdict">The verdict on the set.</param>
/// <param name="Findings">Patterns with their causes.</param>
/// <param name="Wanted">Places still to be read before the set can pass.</param>
/// <param name="SettledBy">What would settle the thinnest.</param>
/// <param name="Notes">What else to know.</param>
/// <param name="Reasons">Why.</param>
public sealed record PadsVerdict(
    IReadOnlyList<PadJudged> Pads, PadJudged Thinnest, Verdict Verdict, IReadOnlyList<PadFinding> Findings, IReadOnlyList<string> Wanted, IReadOnlyList<SettledBy> SettledBy, IReadOnlyList<string> Notes, Reasons Reasons) : IReasoned;

/// <summary>Judges the pads of an axle and reads their wear.</summary>
[Engine]
public static class PadWear
{
    /// <summary>Least lining when the sheet is silent: 2.0 mm (common practice 2 to 3 mm, flagged).</summary>
    public static Length DefaultMinimum { get; } = Length.FromMillimeters(2.0);

    // A difference under this is no pattern, and linings at or under this are worn through. Common practice, no source.
    private const double LeastDifference = 0.5, WornThrough = 1.0;

    /// <summary>
    /// Each pad by its thinner end; it passes with both ends of all four read. A difference counts as much when it exceeds the smaller of 2.0 mm and a
    /// third of the thicker pad, 1.645 times root 2 u, and 0.5 mm. Causes are ranked as the trade does; an answered check moves them.
    /// </summary>
    /// <param name="readings">Linings at their places.</param>
    /// <param name="sheet">The pads' figures.</param>
    /// <param name="answers">Answers to the causes' checks.</param>
    /// <param name="onHand">Instruments in date.</param>
    /// <param name="build">What the brake is made of; null when nobody knows, and then every cause is named.</param>
    /// <exception cref="InputException">No reading, or an impossible one.</exception>
    public static PadsVerdict Judge(IReadOnlyList<PadReading> readings, PadSheet sheet, IReadOnlyList<CauseChecked> answers, IReadOnlyList<Instrument> onHand, BrakeBuild? build = null)
    {
        ArgumentNullException.ThrowIfNull(readings);
        ArgumentNullException.ThrowIfNull(sheet);
        ArgumentNullException.ThrowIfNull(answers);
        Check(readings, sheet, answers);
        var least = sheet.Minimum ?? DefaultMinimum;
        var points = MeasuredPoints.Of(readings, r => (r.Side, r.Pad, r.End), r => r.Lining.Millimeters, r => r.Instrument);
        var unread = (from side in Sides.Both from pad in Enum.GetValues<PadPosition>() from end in Enum.GetValues<PadEnd>() select (Side: side, Pad: pad, End: end))
            .Except(points.Select(p => p.At)).ToArray();
        List<(PadJudged Pad, MeasuredPoint<(Side Side, PadPosition Pad, PadEnd End)> Point)> pads = [];
        foreach (var group in points.GroupBy(p => (p.At.Side, p.At.Pad)).OrderBy(g => g.Key))
        {
            var thin = group.ToList().Deciding(LimitKind.Minimum);
            var fresh = (group.Key.Pad == PadPosition.Inner ? sheet.NewInner : sheet.NewOuter).Millimeters;
            var verdict = LimitJudgement.Against(new(group.Key.Pad == PadPosition.Inner ? Judged.InnerLining : Judged.OuterLining, group.Key.Side), L(thin.Mm), thin.Budget, least, LimitKind.Minimum, thin.Instrument, sheet.Minimum is null ? "practice-minimum-lining" : null,
                [.. unread.Where(u => (u.Side, u.Pad) == group.Key).Select(Place)]);
            Length? End(PadEnd end) => group.FirstOrDefault(p => p.At.End == end) is { } p ? L(p.Mm) : null;
            pads.Add((new(group.Key.Side, group.Key.Pad, End(PadEnd.Leading), End(PadEnd.Trailing), L(thin.Mm), Math.Max(0, (thin.Mm - least.Millimeters) / (fresh - least.Millimeters) * 100), verdict), thin));
        }

        var (thinnest, point) = pads.MinBy(p => p.Pad.Thinnest.Millimeters - p.Pad.Minimum.GuardBand.Millimeters);
        string[] wanted = [.. unread.Select(Place)];
        var worst = Verdicts.Worst([.. pads.Select(p => p.Pad.Minimum.Verdict), wanted.Length > 0 ? Verdict.NotYetEnough : Verdict.Inside]);
        var judged = pads.Select(p => p.Pad).ToArray();
        var findings = Findings(judged, sheet, worst, points.Max(p => p.Doubt), answers, build);
        List<string> notes = [];
        if (wanted.Length > 0) notes.Add($"{points.Count} of 8 places: {string.Join("; ", wanted)} not read.");
        if (judged.Any(p => p.Thinnest.Millimeters <= 0.2)) notes.Add("Metal to metal: the rotor is judged too.");

        var trail = new Trail("PadWear.Judge");
        foreach (var p in judged)
            trail.Formula($"{p.Minimum.What}", "(now - minimum) / (new - minimum)", $"({Figure.Of(p.Thinnest.Millimeters)} - {Figure.Of(least.Millimeters)}) / ({Figure.Of((p.Pad == PadPosition.Inner ? sheet.NewInner : sheet.NewOuter).Millimeters)} - {Figure.Of(least.Millimeters)})", $"{Figure.Of(p.PercentLeft, 0)} % left", "geometry");
        if (sheet.Minimum is null) trail.Default("Least lining", $"{Figure.Of(least.Millimeters)} mm", "practice-minimum-lining");
        foreach (var f in findings) trail.Evidence(f.Says, f.Causes.Count > 0 ? $"likeliest: {f.Causes[0].Says}" : "", "practice-pads");
        return new(judged, thinnest, worst, findings, worst == Verdict.NotYetEnough ? wanted : [], Settling.Of(thinnest.Minimum, point, InstrumentUse.Depth, onHand), notes,
            trail.Conclude(worst switch { Verdict.Inside => "The pads may stay.", Verdict.Outside => "New pads on both sides.", Verdict.NotYetEnough => "Not yet enough: both ends of all four pads.", _ => "Too close to call: not passed." }, "iso-14253-1").WouldChange("A thinner place, a finer instrument, or a check answered.").Done());
    }

    private static List<PadFinding> Findings(PadJudged[] pads, PadSheet sheet, Verdict verdict, double u, IReadOnlyList<CauseChecked> answers, BrakeBuild? build)
    {
        var guard = LimitJudgement.GuardFactor * Math.Sqrt(2) * u;
        bool Much(double thick, double thin) => thick - thin > Math.Min(2.0, thick / 3) && thick - thin > guard && thick - thin > LeastDifference;
        // Nothing is left to tell a pattern from.
        if (pads.All(p => p.Thinnest.Millimeters <= WornThrough)) return [new(PadPattern.WornThrough, null, "Worn through: no cause can be read from it", [])];
        List<PadFinding> found = [];
        void Add(PadPattern pattern, Side? side, string says) => found.Add(new(pattern, side, says, Ranked(pattern, side, answers, build)));
        PadJudged? Pad(Side side, PadPosition position) => pads.FirstOrDefault(p => p.Side == side && p.Pad == position);
        foreach (var side in Sides.Both)
        {
            if (Pad(side, PadPosition.Inner) is { } inner && Pad(side, PadPosition.Outer) is { } outer)
            {
                double i = inner.Thinnest.Millimeters, o = outer.Thinnest.Millimeters;
                if (Much(o, i)) Add(PadPattern.InnerThin, side, $"{Capital(side)} inner {Figure.Of(i, 1)} mm, outer {Figure.Of(o, 1)}: inner much thinner");
                if (Much(i, o)) Add(PadPattern.OuterThin, side, $"{Capital(side)} outer {Figure.Of(o, 1)} mm, inner {Figure.Of(i, 1)}: outer much thinner");
            }

            foreach (var p in pads.Where(p => p.Side == side && p is { Leading: not null, Trailing: not null }))
            {
                double a = p.Leading!.Value.Millimeters, b = p.Trailing!.Value.Millimeters;
                if (Much(Math.Max(a, b), Math.Min(a, b))) Add(PadPattern.Tapered, side, $"{Capital(side)} {(p.Pad == PadPosition.Inner ? "inner" : "outer")} {Figure.Of(a, 1)} leading, {Figure.Of(b, 1)} trailing: tapered");
            }
        }

        double? Least(Side side) => pads.Where(p => p.Side == side).Select(p => (double?)p.Thinnest.Millimeters).Min();
        if (Least(Side.Left) is { } left && Least(Side.Right) is { } right && Much(Math.Max(left, right), Math.Min(left, right)))
            Add(PadPattern.OneSideThin, left < right ? Side.Left : Side.Right, $"Left {Figure.Of(left, 1)} mm, right {Figure.Of(right, 1)}: the {(left < right ? "left" : "right")} side much thinner");
        var thinnest = pads.Min(p => p.Thinnest.Millimeters);
        if (sheet.FrontLeast is { } front && Much(front.Millimeters, thinnest)) Add(PadPattern.RearThin, null, $"Rear {Figure.Of(thinnest, 1)} mm, front {Figure.Of(front.Millimeters, 1)}: rear much thinner");
        if (found.Count == 0 && verdict is (Verdict.Outside or Verdict.TooCloseToCall)) Add(PadPattern.EvenThin, null, "Even and thin: plain wear");
        return found;
    }

    /// <summary>Confirmed first, ruled out last, the rest in the trade's order.</summary>
    private static IReadOnlyList<PadCause> Ranked(PadPattern pattern, Side? side, IReadOnlyList<CauseChecked> answers, BrakeBuild? build) =>
        [.. PadCauses.Of(pattern).Select(c => PadCauses.Fitting(c, build)).OfType<PadCause>().Select(c => c with { Answer = answers.LastOrDefault(a => a.CauseId == c.Id && a.Side == side)?.Answer ?? CheckAnswer.NotMade })
            .OrderBy(c => c.Answer switch { CheckAnswer.Confirms => 0, CheckAnswer.NotMade => 1, _ => 2 })];

    private static void Check(IReadOnlyList<PadReading> readings, PadSheet sheet, IReadOnlyList<CauseChecked> answers)
    {
        var checks = new Checks().Millimetres("newInnerMm", sheet.NewInner, 2, 40).Millimetres("newOuterMm", sheet.NewOuter, 2, 40).Millimetres("minimumMm", sheet.Minimum, 0.5, 20).Millimetres("frontLeastMm", sheet.FrontLeast, 0, 40);
        var least = sheet.Minimum ?? DefaultMinimum;
        foreach (var (field, fresh) in new[] { ("newInnerMm", sheet.NewInner), ("newOuterMm", sheet.NewOuter) })
        {
            if (fresh <= least) checks.Add(field, Figure.Of(fresh.Millimeters), $"over the minimum of {Figure.Of(least.Millimeters)} mm", "A new lining is not over its own minimum: one of them is wrong.");
        }

        if (readings.Count is 0 or > 200) checks.Add("pads", Figure.Of(readings.Count), "1 to 200", "At least one lining is needed, better both ends of all four pads.");
        foreach (var r in readings)
        {
            checks.Millimetres("liningMm", r.Lining, 0, 40);
            var fresh = r.Pad == PadPosition.Inner ? sheet.NewInner : sheet.NewOuter;
            if (r.Lining.Millimeters <= 40 && r.Lining > fresh + Length.FromMillimeters(1))
                checks.Add("liningMm", Figure.Of(r.Lining.Millimeters), $"0 to {Figure.Of(fresh.Millimeters)} mm", $"{Figure.Of(r.Lining.Millimeters)} mm is more than a new lining, {Figure.Of(fresh.Millimeters)}: is the backing plate in it?");
        }

        foreach (var a in answers.Where(a => !PadCauses.Known(a.CauseId))) checks.Add("causeId", Figure.Shorten(a.CauseId), "a cause of the table", "That cause is not one of the table.");
        checks.ThrowIfAny();
    }

    private static string Place((Side Side, PadPosition Pad, PadEnd End) at) =>
        $"{at.Side.Word()} {(at.Pad == PadPosition.Inner ? "inner" : "outer")} pad, {(at.End == PadEnd.Leading ? "leading" : "trailing")} end";
    private static string Capital(Side side) => side == Side.Left ? "Left" : "Right";
    private static Length L(double mm) => Length.FromMillimeters(mm);
}

/// <summary>The table of wear patterns. Common practice, no source.</summary>
public static class PadCauses
{
    private static readonly Dictionary<PadPattern, PadCause[]> Table = new()
    {
        [PadPattern.InnerThin] =
        [
            Cause("frozen-in-bracket", "Pads frozen in the bracket", "Slide each pad by hand, clips in.", "It does not slide."),
            Cause("brake-not-releasing", "Parking mechanism does not release", "Lever on its stop; or the spindle back.", "It stands off."),
            Cause("piston-not-back", "Piston does not go back", "Push it in: does it stay?", "It comes back out."),
            Cause("slides-solid", "Slides seized solid", "Move each pin by hand.", "It does not move."),
        ],
        [PadPattern.OuterThin] =
        [
            Cause("pins-seized", "Slide pins seized", "Move each pin by hand.", "It binds."),
            Cause("bushing-swollen", "Swollen bushing, or too much grease", "Push the pin in and release it.", "It springs back."),
        ],
        [PadPattern.Tapered] =
        [
            Cause("one-ear-frozen", "One ear frozen", "Slide the pad by hand at each ear.", "One ear sticks."),
            Cause("pin-bent", "A pin bent", "Roll the pin on a flat plate.", "It wobbles."),
            Cause("pin-out-of-slot", "Pad pin not in the piston's slot", "Look how the slot stands to the pin.", "It sat beside the slot."),
        ],
        [PadPattern.OneSideThin] =
        [
            Cause("that-caliper", "That caliper sticks", "Push its piston with the brake relaxed.", "It is stiff."),
            Cause("hose-collapsed", "Hose collapsed inside", "Open the bleed screw while it drags.", "The drag goes."),
            Cause("cable-drags", "Cable drags on that side", "Slacken the cable.", "The drag goes."),
        ],
        [PadPattern.RearThin] =
        [
            Cause("brake-drags", "Parking brake drags", "Turn the wheel with the cable slack, or in service position.", "The drag goes."),
            Cause("brake-distribution", "Electronic brake distribution works the rear harder", "Ask for the maker's normal wear, front to rear.", "It is normal for this car."),
            Cause("driven-with-lever-on", "Driven with the lever on", "Ask the driver; look for heat colour.", "The driver says so, or heat shows."),
        ],
        [PadPattern.EvenThin] = [],
        [PadPattern.WornThrough] = [],
    };

    /// <summary>The causes of a pattern, likeliest first, no check made.</summary>
    public static IReadOnlyList<PadCause> Of(PadPattern pattern) => Table[pattern];

    /// <summary>The cause as it is on a brake built like this; null where it cannot be. Without a build every cause stands as the trade tells it.</summary>
    public static PadCause? Fitting(PadCause cause, BrakeBuild? build)
    {
        ArgumentNullException.ThrowIfNull(cause);
        if (build is not { } b) return cause;
        var (lever, spindle, cable) = (b.Mechanism == ParkingMechanism.ScrewInCaliper, b.Mechanism == ParkingMechanism.Spindle, b.Worked is Actuation.Cable or Actuation.Puller);
        return cause.Id switch
        {
            // Shoes in a hat and a second caliper do not wear these pads.
            "brake-not-releasing" => lever ? cause with { Check = "Lever on its stop." } : spindle ? cause with { Check = "The spindle back." } : null,
            "cable-drags" => lever && cable ? cause : null,
            "brake-drags" => lever ? cause with { Check = "Turn the wheel with the cable slack." } : spindle ? cause with { Check = "Turn the wheel in service position." } : null,
            "driven-with-lever-on" => lever && b.Worked == Actuation.Cable ? cause : null,
            "slides-solid" or "pins-seized" or "bushing-swollen" or "pin-bent" => b.Service == ServiceCaliper.Opposed ? null : cause,
            _ => cause,
        };
    }

    /// <summary>True when a cause with this id stands in the table.</summary>
    public static bool Known(string id) => Table.Values.SelectMany(c => c).Any(c => c.Id == id);

    private static PadCause Cause(string id, string says, string check, string confirms) => new(id, says, check, confirms, CheckAnswer.NotMade);
}
