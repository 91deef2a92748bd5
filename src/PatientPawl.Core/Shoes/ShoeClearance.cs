using PatientPawl.Core.Measuring;
using PatientPawl.Core.Reasoning;
using UnitsNet;

namespace PatientPawl.Core.Shoes;

/// <summary>The shoes and their adjuster.</summary>
/// <param name="OverShoes">Largest diameter over the shoes, 50 to 500 mm.</param>
/// <param name="AnchorDistance">Ra: axle centre to the anchor, 20 to 250 mm.</param>
/// <param name="AdjusterDistance">Rb: axle centre to the adjuster, 20 to 250 mm.</param>
/// <param name="Pitch">Pitch of the adjuster's thread, 0.5 to 3 mm.</param>
/// <param name="Teeth">Teeth of the star wheel, 5 to 60.</param>
/// <param name="LeftRightPair">True when the adjuster has a left- and a right-hand thread, so that a click counts double.</param>
/// <param name="ClicksLeft">Clicks the adjuster has left outward; null when not known.</param>
/// <param name="After">A second reading over the shoes after some clicks outward; null when none was taken.</param>
/// <param name="MeasuredWith">What the diameter over the shoes was taken with; null counts as the drum's instrument.</param>
/// <param name="ArcDiameter">Diameter the linings are ground to, usually the drum's nominal, 50 to 500 mm; null when not known.</param>
/// <param name="HalfLining">Half the lining's angle; null uses the flagged default of 60 degrees.</param>
public sealed record ShoeSet(
    Length OverShoes, Length AnchorDistance, Length AdjusterDistance, Length Pitch, int Teeth, bool LeftRightPair, int? ClicksLeft, SecondReading? After,
    Instrument? MeasuredWith = null, Length? ArcDiameter = null, Angle? HalfLining = null)
{
    /// <summary>How much one click lengthens the adjuster.</summary>
    public Length Lengthening() => Pitch / Teeth * (LeftRightPair ? 2 : 1);
}

/// <summary>A second reading over the shoes.</summary>
/// <param name="OverShoes">The diameter then.</param>
/// <param name="Clicks">Clicks made outward between the two, 1 to 200; negative inward.</param>
public sealed record SecondReading(Length OverShoes, int Clicks);

/// <summary>What the sheet says of the clearance, in mm of diameter.</summary>
/// <param name="TargetLow">Low end of the target band; null uses the flagged default 0.3.</param>
/// <param name="TargetHigh">High end; null uses the flagged default 0.6.</param>
/// <param name="LockAndBackOff">Clicks back from lock under the count school; null when it is not used.</param>
public sealed record ClearanceSheet(Length? TargetLow, Length? TargetHigh, int? LockAndBackOff)
{
    /// <summary>Clicks back from lock where the count school is used and the sheet gives none. Ours; five to eight is common practice, no source.</summary>
    internal const int UsualClicksBack = 6;
}

/// <summary>Shoe clearance judged, and the clicks to the target.</summary>
/// <param name="Clearance">Diametral clearance now: smallest drum diameter minus the largest over the shoes.</param>
/// <param name="Doubt">Standard uncertainty of the clearance.</param>
/// <param name="TargetLow">Low end of the band.</param>
/// <param name="TargetHigh">High end of the band.</param>
/// <param name="PerClick">Diametral clearance a click.</param>
/// <param name="PerClickFromReadings">The same from two readings; null when there were none.</param>
/// <param name="Clicks">Whole clicks to turn; positive outward (tighter), negative back.</param>
/// <param name="After">The clearance those clicks really leave.</param>
/// <param name="InBand">True when that lies in the band.</param>
/// <param name="CountSchool">The clearance the count school would leave; null when it is not used.</param>
/// <param name="Verdict">The present clearance against the band: inside, too close to call, or outside.</param>
/// <param name="Curve">Clearance after 0, 1, 2 and so on clicks outward, until it rubs.</param>
/// <param name="Notes">What else to know.</param>
/// <param name="Reasons">Why, line by line.</param>
public sealed record ClearanceVerdict(
    Length Clearance, Length Doubt, Length TargetLow, Length TargetHigh, Length PerClick, Length? PerClickFromReadings, int Clicks, Length After, bool InBand,
    Length? CountSchool, Verdict Verdict, IReadOnlyList<Length> Curve, IReadOnlyList<string> Notes, Reasons Reasons) : IReasoned;

/// <summary>Judges shoe clearance and says how many clicks, which way.</summary>
[Engine]
public static class ShoeClearance
{
    // A click by two readings counts where it is this many times its own doubt.
    private const double DefaultLow = 0.3, DefaultHigh = 0.6, Telling = 2;

    /// <summary>
    /// clearance = smallest drum diameter - diameter over the shoes; per click = k pitch / teeth with k = Ra / (Ra + Rb), or
    /// from two readings (D2 - D1) / n, which beats geometry; clicks: the whole number that lands in the band nearest its
    /// middle; where none does, the looser side.
    /// </summary>
    /// <exception cref="InputException">An impossible figure, or a drum smaller than the shoes.</exception>
    public static ClearanceVerdict Judge(DrumVerdict drum, ShoeSet shoes, ClearanceSheet sheet)
    {
        ArgumentNullException.ThrowIfNull(drum);
        ArgumentNullException.ThrowIfNull(shoes);
        ArgumentNullException.ThrowIfNull(sheet);
        Check(drum, shoes, sheet);
        var clearance = drum.Smallest.Millimeters - shoes.OverShoes.Millimeters;
        // A difference of two readings: each brings its own doubt.
        double uDrum = drum.Budget.Combined.Millimeters, uShoes = shoes.MeasuredWith is { } tool ? UncertaintyBudget.Of(tool).Combined.Millimeters : uDrum;
        var u = Math.Sqrt(uDrum * uDrum + uShoes * uShoes);
        double low = sheet.TargetLow?.Millimeters ?? DefaultLow, high = sheet.TargetHigh?.Millimeters ?? DefaultHigh, aim = (low + high) / 2;
        var trail = new Trail("ShoeClearance.Judge")
            .Formula("Clearance", "smallest drum diameter - diameter over the shoes", $"{Figure.Of(drum.Smallest.Millimeters)} - {Figure.Of(shoes.OverShoes.Millimeters)}", Mm(clearance), "geometry");
        _ = sheet.TargetLow is null || sheet.TargetHigh is null
            ? trail.Default("Target", $"{Figure.Of(low)} to {Figure.Of(high)} mm of diameter", "practice-clearance")
            : trail.Input("Target", $"{Figure.Of(low)} to {Figure.Of(high)} mm of diameter", "spec-sheet");

        var k = shoes.AnchorDistance.Millimeters / (shoes.AnchorDistance.Millimeters + shoes.AdjusterDistance.Millimeters);
        var geometric = k * shoes.Lengthening().Millimeters;
        trail.Formula("A click, by geometry", shoes.LeftRightPair ? "k × 2 × pitch / teeth" : "k × pitch / teeth", $"{Figure.Of(k)} × {Figure.Of(shoes.Pitch.Millimeters)} / {shoes.Teeth}", Mm(geometric, 4), "geometry");
        List<string> notes = [];
        double? measured = null;
        if (shoes.After is { } after)
        {
            measured = (after.OverShoes.Millimeters - shoes.OverShoes.Millimeters) / after.Clicks;
            var doubt = Math.Sqrt(2) * uShoes / Math.Abs(after.Clicks);
            trail.Formula("A click, by two readings", "(D2 - D1) / n", $"({Figure.Of(after.OverShoes.Millimeters)} - {Figure.Of(shoes.OverShoes.Millimeters)}) / {after.Clicks}", $"{Mm(measured.Value, 4)}, doubt {Figure.Of(doubt, 4)}", "geometry");
            if (Math.Abs(measured.Value - geometric) > LimitJudgement.GuardFactor * doubt) notes.Add("Two readings and the geometry disagree by more than their doubt: a worn thread, a slipping wheel, or a shoe that does not follow.");
            // A few clicks move it by less than the gauge can tell.
            if (Math.Abs(measured.Value) < Telling * doubt)
            {
                notes.Add($"{Figure.Count(Math.Abs(after.Clicks), "click")} moved it {Mm(Math.Abs(measured.Value * after.Clicks))}, less than the gauge can tell: the geometry counts. Take the second reading after more clicks.");
                measured = null;
            }
            else if (measured.Value <= 0) throw new InputException(new InputError("after.overShoesMm", Figure.Of(after.OverShoes.Millimeters), "larger after clicks outward", "The shoes did not grow with the clicks outward: wrong way, or the wheel slips."));
        }

        var perClick = measured ?? geometric;
        var raw = (clearance - aim) / perClick;
        // Whole numbers within a billionth count as whole.
        var looser = Math.Abs(raw - Math.Round(raw)) < 1e-9 ? (int)Math.Round(raw) : (int)Math.Floor(raw);
        bool Lands(int n) => clearance - n * perClick is var gap && gap >= low - 1e-9 && gap <= high + 1e-9;
        // The one that lands in the band nearest its middle; where none does, the looser side.
        var clicks = Lands(looser) && (!Lands(looser + 1) || raw - looser <= looser + 1 - raw + 1e-9) || !Lands(looser + 1) ? looser : looser + 1;
        var left = clearance - clicks * perClick;
        var inBand = Lands(clicks);
        trail.Formula("Clicks", "the whole number that lands in the band nearest its middle, else the looser side: (clearance - middle) / a click", $"({Figure.Of(clearance)} - {Figure.Of(aim)}) / {Figure.Of(perClick, 4)} = {Figure.Of(raw, 2)}", clicks.ToString(), "geometry")
            .Formula("Left after them", "clearance - clicks × a click", $"{Figure.Of(clearance)} - {clicks} × {Figure.Of(perClick, 4)}", Mm(left), "geometry");
        if (!inBand) notes.Add("No whole click lands in the band.");
        if (shoes.ClicksLeft is { } available && clicks > available) notes.Add($"The adjuster has {Figure.Count(available, "click")} left and {clicks} {(clicks == 1 ? "is" : "are")} needed: drum too large, or shoes too thin.");

        double? count = null;
        if (sheet.LockAndBackOff is { } n)
        {
            // One click of elastic preload at lock; a default, flagged.
            count = Math.Max(0, n - 1) * perClick;
            trail.Default("Preload at lock", "1 click", "practice-lock")
                .Formula("Count school", "max(0, N - 1) × a click", $"max(0, {n} - 1) × {Figure.Of(perClick, 4)}", Mm(count.Value), "practice-lock");
        }

        var guard = LimitJudgement.GuardFactor * u;
        var verdict = Verdicts.Of(Math.Min(clearance - low, high - clearance), guard);
        trail.Formula("Guard band", "1.645 × root(u drum² + u shoes²)", $"1.645 × root({Figure.Of(uDrum, 4)}² + {Figure.Of(uShoes, 4)}²)", Mm(guard), "iso-14253-1")
            .Conclude(clicks == 0 ? "Leave it: no whole click brings it nearer." : $"Turn {Math.Abs(clicks)} {(Math.Abs(clicks) == 1 ? "click" : "clicks")} {(clicks > 0 ? "out" : "back")}: {Figure.Of(left)} mm left.")
            .WouldChange("A target from the sheet, or a second reading over the shoes after some clicks.");
        var rubs = (int)Math.Clamp(Math.Floor(clearance / perClick), 0, 200);
        return new(L(clearance), L(u), L(low), L(high), L(perClick), measured is { } m ? L(m) : null, clicks, L(left), inBand, count is { } c ? L(c) : null, verdict,
            [.. Enumerable.Range(0, rubs + 1).Select(i => L(clearance - i * perClick))], notes, trail.Done());
    }

    private static void Check(DrumVerdict drum, ShoeSet shoes, ClearanceSheet sheet)
    {
        var checks = new Checks().Millimetres("overShoesMm", shoes.OverShoes, 50, 500).Millimetres("anchorDistanceMm", shoes.AnchorDistance, 20, 250)
            .Millimetres("adjusterDistanceMm", shoes.AdjusterDistance, 20, 250).Millimetres("pitchMm", shoes.Pitch, 0.5, 3).Range("teeth", shoes.Teeth, 5, 60, "")
            .Range("clicksLeft", shoes.ClicksLeft, 0, 500, "").Millimetres("targetLowMm", sheet.TargetLow, 0.05, 5).Millimetres("targetHighMm", sheet.TargetHigh, 0.05, 5)
            .Range("lockAndBackOff", sheet.LockAndBackOff, 1, 60, "").Millimetres("arcDiameterMm", shoes.ArcDiameter, 50, 500).Range("halfLiningDeg", shoes.HalfLining?.Degrees, 10, 85, "degrees");
        if (shoes.OverShoes > drum.Smallest)
            checks.Add("overShoesMm", Figure.Of(shoes.OverShoes.Millimeters), $"at most the smallest drum diameter, {Figure.Of(drum.Smallest.Millimeters)} mm", "The drum is smaller than the shoes: one of the two readings is wrong.");
        if (shoes.After is { } after)
        {
            checks.Millimetres("after.overShoesMm", after.OverShoes, 50, 500);
            if (after.Clicks is 0 or < -200 or > 200) checks.Add("after.clicks", Figure.Of(after.Clicks), "1 to 200, or back", "How many clicks lay between the two readings?");
        }

        if (sheet.TargetLow is { } low && sheet.TargetHigh is { } high && low >= high)
            checks.Add("targetHighMm", Figure.Of(high.Millimeters), $"over {Figure.Of(low.Millimeters)} mm", "The band's high end is not over its low end.");
        checks.ThrowIfAny();
    }

    private static Length L(double mm) => Length.FromMillimeters(mm);
    private static string Mm(double mm, int decimals = 3) => Figure.Of(mm, decimals) + " mm";
}
