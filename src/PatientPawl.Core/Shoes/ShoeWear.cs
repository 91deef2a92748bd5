using PatientPawl.Core.Measuring;
using PatientPawl.Core.Reasoning;
using PatientPawl.Core.Vehicles;
using UnitsNet;

namespace PatientPawl.Core.Shoes;

/// <summary>One of the two shoes of a corner.</summary>
public enum ShoePosition
{
    /// <summary>The shoe toward the front of the car.</summary>
    Front,
    /// <summary>The shoe toward the rear.</summary>
    Rear,
}

/// <summary>Where along a lining it was measured.</summary>
public enum LiningPoint
{
    /// <summary>The end at the anchor.</summary>
    AnchorEnd,
    /// <summary>The middle.</summary>
    Middle,
    /// <summary>The end at the adjuster.</summary>
    AdjusterEnd,
}

/// <summary>One thickness of a shoe's lining.</summary>
/// <param name="Shoe">Which shoe.</param>
/// <param name="Point">Where along it.</param>
/// <param name="Thickness">The reading, 0 to 20 mm.</param>
/// <param name="Instrument">What it was taken with.</param>
public sealed record LiningReading(ShoePosition Shoe, LiningPoint Point, Length Thickness, Instrument Instrument);

/// <summary>What is seen of the shoes and answered by looking.</summary>
/// <param name="BondLifted">An edge of the lining lifts under a pick.</param>
/// <param name="Contaminated">Oil, grease or brake fluid on a lining.</param>
/// <param name="SpringsSound">Springs and pins whole, straight and hooked.</param>
public sealed record ShoeCondition(Known BondLifted, Known Contaminated, Known SpringsSound)
{
    /// <summary>Nothing looked at.</summary>
    public static ShoeCondition NotLooked { get; } = new(Known.NotKnown, Known.NotKnown, Known.NotKnown);
}

/// <summary>The shoes judged.</summary>
/// <param name="Thinnest">Thinnest lining.</param>
/// <param name="ThinnestAt">Where.</param>
/// <param name="Lining">Its verdict against the minimum.</param>
/// <param name="Verdict">The verdict on the shoes altogether.</param>
/// <param name="SettledBy">What would settle the lining, when it is too close to call.</param>
/// <param name="Notes">What else to know.</param>
/// <param name="Reasons">Why.</param>
public sealed record ShoesVerdict(
    Length Thinnest, LiningReading ThinnestAt, LimitVerdict Lining, Verdict Verdict, IReadOnlyList<SettledBy> SettledBy, IReadOnlyList<string> Notes, Reasons Reasons) : IReasoned;

/// <summary>Judges the shoes themselves: lining, bond, contamination, springs.</summary>
[Engine]
public static class ShoeWear
{
    /// <summary>Least lining when the sheet is silent: 1.0 mm (from memory, flagged).</summary>
    public static Length DefaultMinimum { get; } = Length.FromMillimeters(1.0);

    /// <summary>
    /// The thinnest lining decides, and a lifted bond or oil condemns whatever the lining. What was not looked at keeps them from being
    /// passed; springs and pins that are not sound are renewed and condemn no lining.
    /// </summary>
    /// <exception cref="InputException">No reading, or an impossible one.</exception>
    public static ShoesVerdict Judge(IReadOnlyList<LiningReading> readings, ShoeCondition condition, Length? minimum, IReadOnlyList<Instrument> onHand)
    {
        ArgumentNullException.ThrowIfNull(readings);
        ArgumentNullException.ThrowIfNull(condition);
        var checks = new Checks().Millimetres("minimumLiningMm", minimum, 0.3, 10);
        if (readings.Count is 0 or > 100) checks.Add("linings", Figure.Of(readings.Count), "1 to 100", "At least one lining thickness is needed, better three on each shoe.");
        foreach (var r in readings) checks.Millimetres("thicknessMm", r.Thickness, 0, 20);
        checks.ThrowIfAny();

        var points = MeasuredPoints.Of(readings, r => (r.Shoe, r.Point), r => r.Thickness.Millimeters, r => r.Instrument);
        var thinnest = points.Deciding(LimitKind.Minimum);
        var at = readings.First(r => (r.Shoe, r.Point) == thinnest.At);
        string[] wanted =
        [
            .. from shoe in Enum.GetValues<ShoePosition>() from point in Enum.GetValues<LiningPoint>() where points.All(p => p.At != (shoe, point))
               select $"{(shoe == ShoePosition.Front ? "front" : "rear")} shoe, {Words(point)}",
        ];
        var lining = LimitJudgement.Against(new(Judged.ShoeLining), Length.FromMillimeters(thinnest.Mm), thinnest.Budget, minimum ?? DefaultMinimum, LimitKind.Minimum, thinnest.Instrument, minimum is null ? "practice-shoe-lining" : null, wanted);
        var condemned = condition.BondLifted == Known.Yes || condition.Contaminated == Known.Yes;
        var looked = condition.BondLifted != Known.NotKnown && condition.Contaminated != Known.NotKnown;
        // What looking settles is looked at: it is no doubt of a gauge.
        var verdict = condemned ? Verdict.Outside : Verdicts.Worst(lining.Verdict, looked ? Verdict.Inside : Verdict.NotYetEnough);

        List<string> notes = [];
        if (condition.BondLifted == Known.Yes) notes.Add("A lining that lifts comes off inside the drum: new shoes, whatever their thickness.");
        if (condition.Contaminated == Known.Yes) notes.Add("Oil does not wash out of a lining: new shoes, and find where it came from.");
        if (condition.SpringsSound == Known.No) notes.Add("Springs and pins are renewed.");
        if (condition.BondLifted == Known.NotKnown) notes.Add("Try every edge with a pick.");
        if (condition.Contaminated == Known.NotKnown) notes.Add("Look for oil at the lining and behind the hub.");
        if (condition.SpringsSound == Known.NotKnown) notes.Add("Look at springs and pins.");
        if (wanted.Length > 0) notes.Add($"{points.Count} of 6 points: {string.Join("; ", wanted)} not read.");

        var trail = new Trail("ShoeWear.Judge").Input("Thinnest lining", $"{Figure.Of(thinnest.Mm)} mm, {(at.Shoe == ShoePosition.Front ? "front" : "rear")} shoe, {Words(at.Point)}, {thinnest.Instrument.Name}")
            .Input("Bond", condition.BondLifted switch { Known.Yes => "lifts", Known.No => "holds", _ => "not tried" })
            .Input("Oil or fluid", condition.Contaminated switch { Known.Yes => "found", Known.No => "none", _ => "not looked for" });
        _ = minimum is null ? trail.Default("Minimum", $"{Figure.Of(DefaultMinimum.Millimeters)} mm", "practice-shoe-lining") : trail.Input("Minimum", $"{Figure.Of(minimum.Value.Millimeters)} mm", "spec-sheet");
        trail.Evidence("Lining against the minimum", lining.Reasons.Lines[^1].Result, "iso-14253-1")
            .Conclude(verdict switch
            {
                Verdict.Inside => "The shoes may stay.",
                Verdict.Outside => "New shoes, on both sides of the axle.",
                Verdict.TooCloseToCall => "Too close to call: not passed.",
                _ => $"Not yet enough: {string.Join("; ", lining.Wanted.Concat(looked ? [] : ["look at bond and contamination"]))}.",
            }).WouldChange("A thinner place, a lifting edge, or oil found later.");
        return new(Length.FromMillimeters(thinnest.Mm), at, lining, verdict, Settling.Of(lining, thinnest, InstrumentUse.Depth, onHand), notes, trail.Done());
    }

    private static string Words(LiningPoint point) => point switch { LiningPoint.AnchorEnd => "anchor end", LiningPoint.Middle => "middle", _ => "adjuster end" };
}
