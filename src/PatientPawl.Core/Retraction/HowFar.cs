using PatientPawl.Core.Reasoning;
using PatientPawl.Core.Workshop;
using UnitsNet;

namespace PatientPawl.Core.Retraction;

/// <summary>Thicknesses between the piston and the far side of the caliper. Pads are totals with backing plate and shims, unless they are said to be linings.</summary>
/// <param name="Inner">Inner pad, 1 to 60 mm; a lining 0 to 40 mm.</param>
/// <param name="Outer">Outer pad, 1 to 60 mm; a lining 0 to 40 mm.</param>
/// <param name="Rotor">Rotor, 2 to 80 mm.</param>
/// <param name="LiningOnly">True when both pads were measured without their backing, as through an inspection hole.</param>
public sealed record Thicknesses(Length Inner, Length Outer, Length Rotor, bool LiningOnly = false)
{
    /// <summary>Totals, a lining with its backing added.</summary>
    internal Thicknesses Totals(Length? backing) => LiningOnly ? new(Inner + backing!.Value, Outer + backing.Value, Rotor) : this;

    /// <summary>The sum, mm.</summary>
    internal double Mm => Inner.Millimeters + Outer.Millimeters + Rotor.Millimeters;

    internal void CheckInto(Checks checks, string name, Length? backing)
    {
        var (low, high) = LiningOnly ? (0, 40) : (1, 60);
        checks.Millimetres($"{name}.innerMm", Inner, low, high).Millimetres($"{name}.outerMm", Outer, low, high).Millimetres($"{name}.rotorMm", Rotor, 2, 80);
        if (LiningOnly && backing is null) checks.Add("backingMm", "nothing", "1 to 20 mm", "Linings were given without their backing: say how thick the plate with its shims is, 1 to 20 mm.");
    }
}

/// <summary>What "how far" is computed from: a sliding caliper, or an opposed one side by side.</summary>
/// <param name="Old">What was in.</param>
/// <param name="New">What goes in.</param>
/// <param name="Protrusion">How far the piston stands proud now, 0 to 100 mm; null when not measured.</param>
/// <param name="HomeProtrusion">How far it stands proud when home, 0 to 50 mm; null when the sheet does not say.</param>
/// <param name="Lead">Travel a turn, 0.1 to 10 mm; null for a push or when not known.</param>
/// <param name="PistonDiameter">Bore, 10 to 100 mm.</param>
/// <param name="PistonsPerCaliper">1 to 12.</param>
/// <param name="Margin">Running margin, 0 to 5 mm; null uses the flagged default of 1.0 mm.</param>
/// <param name="Backing">Backing plate with shims, 1 to 20 mm; wanted only where linings are given.</param>
/// <param name="ProtrusionOuter">Opposed pistons: how far the outer ones stand proud, 0 to 100 mm; null when not measured.</param>
/// <param name="ProtrusionLimit">The furthest the maker lets a piston stand proud, 1 to 100 mm; null when the sheet does not say.</param>
/// <param name="Diameters">Bores that differ, one by one: those of the caliper, or of one side of an opposed one. Null when all are alike.</param>
public sealed record HowFarInput(
    Thicknesses Old, Thicknesses New, Length? Protrusion, Length? HomeProtrusion, Length? Lead, Length PistonDiameter, int PistonsPerCaliper, Length? Margin,
    Length? Backing = null, Length? ProtrusionOuter = null, Length? ProtrusionLimit = null, IReadOnlyList<Length>? Diameters = null);

/// <summary>How far the piston goes back.</summary>
/// <param name="Need">Travel the new parts need, margin included; can be negative when they are thinner.</param>
/// <param name="HomeTravel">Travel left to home; null when the protrusion or the home figure is not known.</param>
/// <param name="Travel">Travel to make under the house rule.</param>
/// <param name="Turns">Turns to make; null when the lead is not known or the piston is pushed.</param>
/// <param name="Displaced">Fluid pushed back to the reservoir by this corner.</param>
/// <param name="DisplacedIsLowerBound">True when the protrusion was not measured.</param>
/// <param name="WillNotGoIn">True when the new parts need more than there is: wrong parts, or not seated.</param>
/// <param name="Warnings">What to know before starting.</param>
/// <param name="Reasons">Why.</param>
public sealed record TravelResult(
    Length Need, Length? HomeTravel, Length Travel, double? Turns, Volume Displaced, bool DisplacedIsLowerBound, bool WillNotGoIn,
    IReadOnlyList<string> Warnings, Reasons Reasons) : IReasoned;

/// <summary>How far opposed pistons go back: each side by itself, and both together.</summary>
/// <param name="Inner">The inner side.</param>
/// <param name="Outer">The outer side.</param>
/// <param name="Whole">Both: the longer way, the shorter room, and the fluid of all pistons.</param>
/// <param name="Reasons">Why.</param>
public sealed record OpposedTravel(TravelResult Inner, TravelResult Outer, TravelResult Whole, Reasons Reasons) : IReasoned;

/// <summary>Says how far, how many turns and how much fluid.</summary>
[Engine]
public static class HowFar
{
    /// <summary>The running margin when the rule does not say: 1.0 mm.</summary>
    public static Length DefaultMargin { get; } = Length.FromMillimeters(1.0);

    /// <summary>
    /// need = (new inner + outer + rotor) - (old inner + outer + rotor) + margin; homeTravel = protrusion - home protrusion;
    /// travel by the house rule; turns = travel / lead; volume = sum over pistons of (pi/4) d² × travel.
    /// </summary>
    /// <exception cref="InputException">Naming each figure outside its range.</exception>
    public static TravelResult Compute(HowFarInput input, RetractDepthRule rule)
    {
        ArgumentNullException.ThrowIfNull(input);
        Check(input, input.PistonsPerCaliper);
        var trail = new Trail("HowFar.Compute");
        var (was, becomes) = (Totals(trail, "Old", input.Old, input.Backing), Totals(trail, "New", input.New, input.Backing));
        var margin = Margin(trail, input);
        var need = becomes.Mm - was.Mm + margin;
        trail.Formula("Need", "new pads and rotor - old pads and rotor + margin", $"({Of(becomes)}) - ({Of(was)}) + {Figure.Of(margin)}", Mm(need), "geometry");
        return Way(trail, input, input.Protrusion, need, Bores(input, input.PistonsPerCaliper), rule);
    }

    /// <summary>
    /// Opposed pistons, each side: need = new pad - old pad + (new rotor - old rotor) / 2 + margin. The rotor stays in the middle,
    /// so half of what it gains goes to each side. Both sides go back together.
    /// </summary>
    /// <exception cref="InputException">Naming each figure outside its range; an odd number of pistons is refused.</exception>
    public static OpposedTravel Opposed(HowFarInput input, RetractDepthRule rule)
    {
        ArgumentNullException.ThrowIfNull(input);
        if (input.PistonsPerCaliper % 2 != 0)
            throw new InputException(new InputError("pistonsPerCaliper", Figure.Of(input.PistonsPerCaliper), "an even number, 2 to 12", $"Opposed pistons come in pairs: {input.PistonsPerCaliper} is odd."));
        var perSide = input.PistonsPerCaliper / 2;
        Check(input, perSide);
        var was = input.Old.Totals(input.Backing);
        var becomes = input.New.Totals(input.Backing);
        TravelResult Side(string name, Length old, Length now, Length? protrusion)
        {
            var trail = new Trail("HowFar.Opposed").Input("Side", name);
            var margin = Margin(trail, input);
            var need = now.Millimeters - old.Millimeters + (becomes.Rotor.Millimeters - was.Rotor.Millimeters) / 2 + margin;
            trail.Formula("Need", "new pad - old pad + (new rotor - old rotor) / 2 + margin",
                $"{Figure.Of(now.Millimeters)} - {Figure.Of(old.Millimeters)} + ({Figure.Of(becomes.Rotor.Millimeters)} - {Figure.Of(was.Rotor.Millimeters)}) / 2 + {Figure.Of(margin)}", Mm(need), "geometry");
            return Way(trail, input with { Lead = null }, protrusion, need, Bores(input, perSide), rule);
        }

        var inner = Side("inner", was.Inner, becomes.Inner, input.Protrusion);
        var outer = Side("outer", was.Outer, becomes.Outer, input.ProtrusionOuter);
        var both = inner.Displaced + outer.Displaced;
        List<string> warnings = [.. inner.Warnings.Select(w => "Inner: " + w), .. outer.Warnings.Select(w => "Outer: " + w)];
        var longer = inner.Travel > outer.Travel ? inner.Travel : outer.Travel;
        Length? room = inner.HomeTravel is { } a && outer.HomeTravel is { } b ? (a < b ? a : b) : null;
        var reasons = new Trail("HowFar.Opposed")
            .Evidence("Inner", inner.Reasons.Lines[^1].Result).Evidence("Outer", outer.Reasons.Lines[^1].Result)
            .Formula("Fluid pushed back", "inner + outer", $"{Figure.Of(inner.Displaced.Milliliters, 1)} + {Figure.Of(outer.Displaced.Milliliters, 1)}", Millilitres(both), "geometry")
            .Conclude($"Inner {Figure.Of(inner.Travel.Millimeters, 1)} mm, outer {Figure.Of(outer.Travel.Millimeters, 1)} mm, {Millilitres(both)}. Push opposite pistons together.")
            .WouldChange("A protrusion measured on the other side.").Done();
        var whole = new TravelResult(inner.Need > outer.Need ? inner.Need : outer.Need, room, longer, null, both, inner.DisplacedIsLowerBound || outer.DisplacedIsLowerBound, inner.WillNotGoIn || outer.WillNotGoIn, warnings, reasons);
        return new(inner, outer, whole, reasons);
    }

    private static TravelResult Way(Trail trail, HowFarInput input, Length? protrusion, double need, IReadOnlyList<Length> bores, RetractDepthRule rule)
    {
        double? home = protrusion is { } p && input.HomeProtrusion is { } h ? p.Millimeters - h.Millimeters : null;
        List<string> warnings = [];
        if (home is { } toHome)
        {
            trail.Formula("To home", "protrusion - home protrusion", $"{Figure.Of(protrusion!.Value.Millimeters)} - {Figure.Of(input.HomeProtrusion!.Value.Millimeters)}", Mm(toHome), "spec-sheet");
            if (toHome < -0.3) warnings.Add("The piston is measured deeper than home. Measure again, from the same land the sheet measures from.");
        }
        else
        {
            warnings.Add(protrusion is null ? "Protrusion not measured: the volume is a lower bound." : "No home figure on the sheet: the volume is a lower bound.");
        }

        if (protrusion is { } stands && input.ProtrusionLimit is { } limit && stands > limit)
            warnings.Add($"The piston stands {Figure.Of(stands.Millimeters, 1)} mm proud and its limit is {Figure.Of(limit.Millimeters, 1)} mm: it has run on the end of its bore. Look at seal, boot and land before it goes back.");

        // A thousandth of a millimetre over is rounding of the figures, not a wrong part.
        var wrong = home is { } room && need > Math.Max(room, 0) + 0.001;
        if (wrong) warnings.Add($"The new parts need {Figure.Of(need, 1)} mm and only {Figure.Of(Math.Max(home!.Value, 0), 1)} mm is there: wrong parts, or not seated.");

        var asFarAsNeeded = rule == RetractDepthRule.AsFarAsNeeded;
        var travel = Math.Max(asFarAsNeeded || home is null ? need : home.Value, 0);
        if (home is { } most && asFarAsNeeded) travel = Math.Min(travel, Math.Max(most, 0));
        trail.Formula("Travel", asFarAsNeeded ? "as far as needed, by the house rule" : home is null ? "at least what the new parts need" : "all the way home, by the house rule",
            asFarAsNeeded || home is null ? Mm(need) : Mm(home.Value), Mm(travel));

        double? turns = input.Lead is { } lead ? travel / lead.Millimeters : null;
        if (turns is { } t) trail.Formula("Turns", "travel / lead", $"{Figure.Of(travel)} / {Figure.Of(input.Lead!.Value.Millimeters)}", Figure.Of(t, 2), "geometry");

        var volume = Hydraulics.DisplacedFluid.Volume(bores, Length.FromMillimeters(travel));
        var alike = bores.All(b => b.Equals(bores[0], Length.FromMillimeters(0.0001)));
        trail.Formula("Fluid pushed back", "sum over pistons of (pi/4) d² × travel",
            alike ? $"{bores.Count} × 0.7854 × {Figure.Of(bores[0].Millimeters)}² × {Figure.Of(travel)}" : $"0.7854 × ({string.Join(" + ", bores.Select(b => Figure.Of(b.Millimeters) + "²"))}) × {Figure.Of(travel)}", Millilitres(volume), "geometry");
        trail.Conclude(turns is { } n ? $"{Figure.Count(n, "turn", decimals: 1)}, {Figure.Of(travel, 1)} mm, {Millilitres(volume)}." : $"{Figure.Of(travel, 1)} mm, {Millilitres(volume)}.")
            .WouldChange(asFarAsNeeded ? "The house rule \"all the way home\"." : "The house rule \"only as far as needed\".");
        return new(Length.FromMillimeters(need), home is { } x ? Length.FromMillimeters(x) : null, Length.FromMillimeters(travel), turns, volume, home is null, wrong, warnings, trail.Done());
    }

    private static void Check(HowFarInput input, int bores)
    {
        var checks = new Checks();
        input.Old.CheckInto(checks, "old", input.Backing);
        input.New.CheckInto(checks, "new", input.Backing);
        checks.Millimetres("protrusionMm", input.Protrusion, 0, 100).Millimetres("protrusionOuterMm", input.ProtrusionOuter, 0, 100).Millimetres("homeProtrusionMm", input.HomeProtrusion, 0, 50)
            .Millimetres("protrusionLimitMm", input.ProtrusionLimit, 1, 100).Millimetres("backingMm", input.Backing, 1, 20)
            .Millimetres("leadMm", input.Lead, 0.1, 10).Millimetres("pistonDiameterMm", input.PistonDiameter, 10, 100)
            .Range("pistonsPerCaliper", input.PistonsPerCaliper, 1, 12, "").Millimetres("marginMm", input.Margin, 0, 5);
        foreach (var d in input.Diameters ?? []) checks.Millimetres("diametersMm", d, 10, 100);
        if (input.Diameters is { } list && list.Count != bores)
            checks.Add("diametersMm", Figure.Of(list.Count), Figure.Of(bores), $"{list.Count} bores are given where {bores} {(bores == 1 ? "is" : "are")} wanted.");
        checks.ThrowIfAny();
    }

    private static IReadOnlyList<Length> Bores(HowFarInput input, int count) => input.Diameters ?? [.. Enumerable.Repeat(input.PistonDiameter, count)];

    private static double Margin(Trail trail, HowFarInput input)
    {
        var margin = (input.Margin ?? DefaultMargin).Millimeters;
        _ = input.Margin is null ? trail.Default("Running margin", "1 mm", "practice-margin") : trail.Input("Running margin", Mm(margin));
        return margin;
    }

    private static Thicknesses Totals(Trail trail, string name, Thicknesses given, Length? backing)
    {
        if (given.LiningOnly)
            trail.Formula($"{name} pads, total", "lining + backing", $"{Figure.Of(given.Inner.Millimeters)} and {Figure.Of(given.Outer.Millimeters)} + {Figure.Of(backing!.Value.Millimeters)}", $"{Figure.Of((given.Inner + backing.Value).Millimeters)} and {Figure.Of((given.Outer + backing.Value).Millimeters)} mm", "geometry");
        return given.Totals(backing);
    }

    private static string Mm(double value) => Figure.Of(value, 2) + " mm";
    private static string Millilitres(Volume v) => Hydraulics.DisplacedFluid.Words(v);
    private static string Of(Thicknesses s) => $"{Figure.Of(s.Inner.Millimeters)} + {Figure.Of(s.Outer.Millimeters)} + {Figure.Of(s.Rotor.Millimeters)}";
}
