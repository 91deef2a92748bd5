using PatientPawl.Core.Reasoning;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Vehicles;
using PatientPawl.Core.Workshop;
using UnitsNet;

namespace PatientPawl.Core.Hydraulics;

/// <summary>The fluid's side of one corner.</summary>
/// <param name="Side">The corner.</param>
/// <param name="Bores">Bores of its pistons, 10 to 100 mm each.</param>
/// <param name="Travel">How far they go back, 0 to 100 mm.</param>
/// <param name="Need">What the new parts need, -100 to 100 mm, margin included.</param>
/// <param name="Margin">The running margin in it, 0 to 5 mm; null is 1 mm.</param>
public sealed record CornerFluid(Side Side, IReadOnlyList<Length> Bores, Length Travel, Length Need, Length? Margin)
{
    // Where the pistons of a corner do not all go the same way, as that was reckoned.
    internal Volume? Displaced { get; init; }

    /// <summary>Fluid that goes back to the reservoir.</summary>
    internal Volume Back => Displaced ?? DisplacedFluid.Volume(Bores, Travel);

    /// <summary>Fluid that the pedal has to bring up again: area × (travel - need + margin).</summary>
    internal Volume Gap => DisplacedFluid.Volume(Bores, Length.FromMillimeters(Math.Max((Travel - Need + (Margin ?? HowFar.DefaultMargin)).Millimeters, 0)));

    internal static void CheckInto(Checks checks, IReadOnlyList<CornerFluid> corners)
    {
        checks.Range("corners", corners.Count, 0, 2, "");
        if (corners.DistinctBy(c => c.Side).Count() != corners.Count) checks.Add("corners", "the same corner twice", "left and right, once each", "The same corner is given twice.");
        foreach (var c in corners)
        {
            checks.Range("boresMm", c.Bores.Count, 1, 12, "").Millimetres("travelMm", c.Travel, 0, 100).Millimetres("needMm", c.Need, -100, 100).Millimetres("marginMm", c.Margin, 0, 5);
            foreach (var b in c.Bores) checks.Millimetres("boresMm", b, 10, 100);
        }
    }
}

/// <summary>A reservoir measured from outside, where no sheet gives its volume.</summary>
/// <param name="Length">Along, 20 to 400 mm.</param>
/// <param name="Width">Across, 20 to 400 mm; null for a round one, whose diameter is the length.</param>
/// <param name="MinToMax">From MIN to MAX, 5 to 200 mm.</param>
/// <param name="MaxToBrim">From MAX to the brim, 0 to 200 mm.</param>
/// <param name="Wall">Wall thickness, 0 to 9 mm; null uses the flagged default of 2.5 mm.</param>
public sealed record ReservoirSides(Length Length, Length? Width, Length MinToMax, Length MaxToBrim, Length? Wall = null);

/// <summary>A reservoir's volumes.</summary>
/// <param name="Spec">Band and headspace.</param>
/// <param name="Reasons">Why.</param>
public sealed record ReservoirMeasured(ReservoirSpec Spec, Reasons Reasons) : IReasoned;

/// <summary>What the fluid bench works with.</summary>
/// <param name="Reservoir">From the sheet; null when it is measured.</param>
/// <param name="Sides">Measured from outside; null when the sheet gives it.</param>
/// <param name="LevelPercent">Level now, per cent of MIN to MAX, 0 to 150.</param>
/// <param name="Corners">Corners whose pistons still go back.</param>
/// <param name="Room">The house rule for making room.</param>
/// <param name="AlreadyBack">Corners whose pistons are back and whose gap the pedal still has to take up.</param>
public sealed record ReservoirInput(ReservoirSpec? Reservoir, ReservoirSides? Sides, double LevelPercent, IReadOnlyList<CornerFluid> Corners, FluidRoomRule Room, IReadOnlyList<CornerFluid>? AlreadyBack = null);

/// <summary>The reservoir through the job: now, with the pistons home, and with the pedal up.</summary>
/// <param name="Spec">Band and headspace used.</param>
/// <param name="LevelPercent">Level now.</param>
/// <param name="Back">Fluid that comes back.</param>
/// <param name="Room">Whether it fits, and what to draw off.</param>
/// <param name="LevelDrawn">Level once the excess is drawn off.</param>
/// <param name="LevelHome">Level with the pistons home.</param>
/// <param name="LevelFinal">Level once the pedal has brought them up to the new parts.</param>
/// <param name="TopUp">What is wanted to MAX at the end; 0 when it stands there or over.</param>
/// <param name="NeverFillNow">True when topping up to MAX now would run over the brim.</param>
/// <param name="Says">What to do and why, in order.</param>
/// <param name="Reasons">Why.</param>
public sealed record ReservoirAnswer(
    ReservoirSpec Spec, double LevelPercent, Volume Back, RoomResult Room, double LevelDrawn, double LevelHome, double LevelFinal, Volume TopUp, bool NeverFillNow, IReadOnlyList<string> Says, Reasons Reasons) : IReasoned;

/// <summary>Predicts the reservoir through the job.</summary>
[Engine]
public static class FluidBench
{
    /// <summary>Wall of a moulded reservoir when it is not measured: 2.5 mm.</summary>
    public static Length DefaultWall { get; } = Length.FromMillimeters(2.5);

    /// <summary>
    /// Volumes from outside sides, wall taken off: (length - 2 wall)(width - 2 wall) × height, or (pi/4)(diameter - 2 wall)² × height. Ribs and slopes
    /// make it less: it is an upper bound, and the level is watched.
    /// </summary>
    /// <exception cref="InputException">Naming each figure outside its range.</exception>
    public static ReservoirMeasured Measure(ReservoirSides sides)
    {
        ArgumentNullException.ThrowIfNull(sides);
        var checks = new Checks().Millimetres("lengthMm", sides.Length, 20, 400).Millimetres("widthMm", sides.Width, 20, 400).Millimetres("minToMaxMm", sides.MinToMax, 5, 200)
            .Millimetres("maxToBrimMm", sides.MaxToBrim, 0, 200).Millimetres("wallMm", sides.Wall, 0, 9);
        checks.ThrowIfAny();
        var trail = new Trail("FluidBench.Measure");
        var wall = (sides.Wall ?? DefaultWall).Millimeters;
        if (sides.Wall is null) trail.Default("Wall", $"{Figure.Of(wall)} mm", "practice-reservoir");
        var inside = sides.Length.Millimeters - 2 * wall;
        var area = sides.Width is { } w ? inside * (w.Millimeters - 2 * wall) : Math.PI / 4 * inside * inside;
        var (band, head) = (Volume.FromMilliliters(area * sides.MinToMax.Millimeters / 1000), Volume.FromMilliliters(area * sides.MaxToBrim.Millimeters / 1000));
        trail.Formula("Area", sides.Width is null ? "(pi/4)(diameter - 2 wall)²" : "(length - 2 wall)(width - 2 wall)", sides.Width is { } x ? $"{Figure.Of(inside)} × {Figure.Of(x.Millimeters - 2 * wall)}" : $"0.7854 × {Figure.Of(inside)}²", $"{Figure.Of(area, 0)} mm²", "geometry")
            .Formula("MIN to MAX", "area × height", $"{Figure.Of(area, 0)} × {Figure.Of(sides.MinToMax.Millimeters)}", DisplacedFluid.Words(band), "geometry")
            .Formula("MAX to the brim", "area × height", $"{Figure.Of(area, 0)} × {Figure.Of(sides.MaxToBrim.Millimeters)}", DisplacedFluid.Words(head), "geometry");
        var spec = new ReservoirSpec(band, head);
        if (band.Milliliters is < 10 or > 2000)
            throw new InputException(new InputError("minToMaxMm", Figure.Of(sides.MinToMax.Millimeters), "sides that make 10 to 2000 mL", $"These sides make {Figure.Of(band.Milliliters, 1)} mL between MIN and MAX: a reservoir has 10 to 2000."));
        return new(spec, trail.Conclude($"About {Figure.Of(band.Milliliters, 0)} mL from MIN to MAX and {Figure.Of(head.Milliliters, 0)} to the brim; ribs and slopes make it less.").WouldChange("The maker's figure.").Done());
    }

    /// <summary>
    /// Level with the pistons home = level + (fluid back - drawn off) / band. Level at the end = that less the gap the pedal takes up again, gap = sum of
    /// area × (travel - need + margin). With the bleed screw open nothing comes back, and the circuit counts as open.
    /// </summary>
    /// <exception cref="InputException">Naming each figure outside its range, or when no reservoir is given.</exception>
    public static ReservoirAnswer Predict(ReservoirInput input)
    {
        ArgumentNullException.ThrowIfNull(input);
        var checks = new Checks();
        CornerFluid.CheckInto(checks, input.Corners);
        CornerFluid.CheckInto(checks, input.AlreadyBack ?? []);
        checks.Range("levelPercent", input.LevelPercent, 0, 150, "%");
        if (input.Reservoir is null && input.Sides is null) checks.Add("reservoir", "nothing", "the sheet's volumes, or its sides", "The reservoir's volume is not known: from the sheet, or measure its sides.");
        checks.ThrowIfAny();
        var measured = input.Reservoir is null ? Measure(input.Sides!) : null;
        var spec = input.Reservoir ?? measured!.Spec;
        var open = input.Room == FluidRoomRule.OpenBleeder;
        var back = open ? Volume.Zero : Sum(input.Corners, c => c.Back);
        var gap = Sum(input.Corners, c => c.Gap) + Sum(input.AlreadyBack ?? [], c => c.Gap);
        var room = ReservoirRoom.Judge(spec, input.LevelPercent, back);
        var band = spec.Band.Milliliters;
        var drawn = input.LevelPercent - room.DrawOff.Milliliters / band * 100;
        var home = drawn + (back - room.DrawWhile).Milliliters / band * 100;
        var final = home - gap.Milliliters / band * 100;
        var topUp = Volume.FromMilliliters(Math.Max((100 - final) / 100 * band, 0));
        var never = back > spec.Headspace;

        var trail = new Trail("FluidBench.Predict");
        if (measured is not null) trail.Take(measured.Reasons);
        trail.Input("MIN to MAX, and to the brim", $"{Figure.Of(band, 1)} and {Figure.Of(spec.Headspace.Milliliters, 1)} mL", measured is null ? "spec-sheet" : "geometry").Input("Level", $"{Figure.Of(input.LevelPercent, 0)} %");
        foreach (var c in input.Corners) trail.Formula($"Back, {c.Side.Word()}", "sum over pistons of (pi/4) d² × travel", $"{string.Join(" + ", c.Bores.Select(b => Figure.Of(b.Millimeters) + "²"))}, × 0.7854 × {Figure.Of(c.Travel.Millimeters)}", DisplacedFluid.Words(c.Back), "geometry");
        trail.Formula("With the pistons home", "level + (back - drawn off) / band", $"{Figure.Of(input.LevelPercent, 0)} + ({Figure.Of(back.Milliliters, 1)} - {Figure.Of((room.DrawOff + room.DrawWhile).Milliliters, 1)}) / {Figure.Of(band)}", $"{Figure.Of(home, 0)} %", "geometry")
            .Formula("At the end", "that - sum of area × (travel - need + margin) / band", $"{Figure.Of(home, 0)} - {Figure.Of(gap.Milliliters, 1)} / {Figure.Of(band)}", $"{Figure.Of(final, 0)} %", "geometry");

        List<string> says = [];
        if (open)
        {
            says.Add("Bleed screw open: open it, push, and close it before the tool lets go. Nothing comes back to the reservoir.");
            says.Add("The circuit then counts as open at that corner: it is bled before the pedal is proved, and the fluid lost is topped up.");
        }
        else if (input.Corners.Count > 0)
        {
            says.Add(room.Verdict switch
            {
                RoomVerdict.FitsUnderMax => $"{DisplacedFluid.Words(back)} come back and fit under MAX.",
                RoomVerdict.OverMaxUnderBrim => $"{DisplacedFluid.Words(back)} come back: over MAX and under the brim. Watch it.",
                RoomVerdict.DrawOffFirst => $"Draw off {Figure.Of(room.DrawOff.Milliliters, 1)} mL first, with a clean syringe: {DisplacedFluid.Words(back)} come back.",
                _ => $"{DisplacedFluid.Words(back)} come back and it stands at MIN: draw while the pistons go back, in steps.",
            });
            says.Add(never ? "Never fill it now: filled to MAX it would run over the brim as the pistons go home." : "Do not fill it now: the level comes back by itself.");
            if (room.Verdict != RoomVerdict.FitsUnderMax) says.Add("It was topped up as the pads wore: that fluid is what overflows. One that was never topped up does not.");
        }

        says.Add(final > 100.5 ? $"With the pedal up it stands at {Figure.Of(final, 0)} %: take {Figure.Of((final - 100) / 100 * band, 0)} mL off."
            : final < 0 ? $"With the pedal up it stands under MIN: top up {Figure.Of(topUp.Milliliters, 0)} mL then, not before."
            : $"With the pedal up it stands at about {Figure.Of(final, 0)} %.");
        return new(spec, input.LevelPercent, back, room, drawn, home, final, topUp, never, says, trail.Conclude(says[0]).WouldChange("The level read again at the reservoir.").Done());
    }

    private static Volume Sum(IEnumerable<CornerFluid> corners, Func<CornerFluid, Volume> of) => Volume.FromMilliliters(corners.Sum(c => of(c).Milliliters));
}
