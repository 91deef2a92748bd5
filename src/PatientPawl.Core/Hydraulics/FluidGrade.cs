using PatientPawl.Core.Reasoning;

namespace PatientPawl.Core.Hydraulics;

/// <summary>A kind of brake fluid.</summary>
public enum FluidGrade
{
    /// <summary>DOT 3, glycol.</summary>
    Dot3,
    /// <summary>DOT 4, glycol and borate.</summary>
    Dot4,
    /// <summary>ISO 4925 class 6: low viscosity, glycol, for some stability systems.</summary>
    Class6,
    /// <summary>DOT 5.1, glycol.</summary>
    Dot51,
    /// <summary>DOT 5, silicone.</summary>
    Dot5,
    /// <summary>Mineral hydraulic oil.</summary>
    MineralOil,
}

/// <summary>Whether a bottle may go into a reservoir.</summary>
public enum MixVerdict
{
    /// <summary>What the cap says.</summary>
    AsTheCap,
    /// <summary>It mixes, and is no lower than the cap.</summary>
    Mixes,
    /// <summary>It mixes, and lowers what the cap asks for.</summary>
    LowersTheGrade,
    /// <summary>Never.</summary>
    Never,
}

/// <summary>What test-pen water says.</summary>
public enum WaterVerdict
{
    /// <summary>Good.</summary>
    Good,
    /// <summary>Plan a change.</summary>
    PlanChange,
    /// <summary>Change it.</summary>
    Change,
}

/// <summary>What is known of the fluid.</summary>
/// <param name="Cap">What the reservoir's cap or the sheet says.</param>
/// <param name="Bottle">What is about to go in; null when nothing is.</param>
/// <param name="WaterPercent">Water by test pen, 0 to 10 %; null when it was not tested.</param>
/// <param name="HottestCelsius">The hottest the fluid gets, 20 to 300 degrees C; null when not known.</param>
public sealed record FluidInput(FluidGrade Cap, FluidGrade? Bottle, double? WaterPercent, double? HottestCelsius);

/// <summary>What fluid may go in, and what the fluid in it can still take.</summary>
/// <param name="Mix">Whether the bottle may go in; null when there is none.</param>
/// <param name="CountsAs">What the mix counts as; null when it may not be mixed or nothing goes in.</param>
/// <param name="DryCelsius">Least boiling point of fresh fluid, degrees C; null where the standard gives none.</param>
/// <param name="WetCelsius">Least boiling point of fluid that has taken up water, degrees C; null where the standard gives none.</param>
/// <param name="Water">What the water says; null when it was not tested.</param>
/// <param name="MarginCelsius">Least boiling point less the hottest, degrees: wet once there is any water; null when not known.</param>
/// <param name="Says">In words.</param>
/// <param name="Reasons">Why.</param>
public sealed record FluidAnswer(MixVerdict? Mix, FluidGrade? CountsAs, double? DryCelsius, double? WetCelsius, WaterVerdict? Water, double? MarginCelsius, IReadOnlyList<string> Says, Reasons Reasons) : IReasoned;

/// <summary>Judges brake fluid: what mixes, how wet it is, how far it is from boiling.</summary>
[Engine]
public static class BrakeFluid
{
    private const double PlanAt = 1.5, ChangeAt = 3;

    /// <summary>
    /// Glycol fluids mix and count as the lowest grade among them; silicone mixes with nothing, and mineral oil and the others destroy each other's seals.
    /// Water under 1.5 % is good, from 1.5 % plan a change, from 3 % change. Boiling points are the least that FMVSS 116 allows.
    /// </summary>
    /// <exception cref="InputException">Naming each figure outside its range.</exception>
    public static FluidAnswer Judge(FluidInput input)
    {
        ArgumentNullException.ThrowIfNull(input);
        new Checks().Range("waterPercent", input.WaterPercent, 0, 10, "%").Range("hottestCelsius", input.HottestCelsius, 20, 300, "°C").ThrowIfAny();
        var trail = new Trail("BrakeFluid.Judge").Input("Cap", Name(input.Cap), "spec-sheet");
        List<string> says = [];
        MixVerdict? mix = null;
        FluidGrade? counts = null;
        if (input.Bottle is { } bottle)
        {
            trail.Input("Bottle", Name(bottle));
            (mix, counts) = Mix(input.Cap, bottle);
            says.Add(mix switch
            {
                MixVerdict.AsTheCap => $"{Name(bottle)} is what the cap asks for.",
                MixVerdict.Mixes => $"{Name(bottle)} mixes with {Name(input.Cap)}; the mix counts as {Name(counts!.Value)}.",
                MixVerdict.LowersTheGrade => $"Not that one: the mix counts as {Name(counts!.Value)}, and the cap asks for {Name(input.Cap)}.",
                _ => bottle == FluidGrade.Dot5 || input.Cap == FluidGrade.Dot5 ? "Never: silicone mixes with no other fluid. If it went in, nothing is driven and everything is flushed as the maker says."
                    : "Never: mineral oil and DOT fluid destroy each other's seals. If it went in, the pedal stays untouched and every rubber part is suspect.",
            });
            trail.Evidence("Mixing", says[^1], "practice-fluid");
        }

        // What is refused does not go in: the system counts as what its cap asks for.
        var (dry, wet) = Boiling(input.Cap);
        if (dry is { } d) trail.Input("Least boiling point, fresh and wet", $"{Figure.Of(d)} and {Figure.Of(wet!.Value)} °C", "fmvss-116");
        WaterVerdict? water = input.WaterPercent is { } w ? w < PlanAt ? WaterVerdict.Good : w < ChangeAt ? WaterVerdict.PlanChange : WaterVerdict.Change : null;
        if (water is { } v)
        {
            says.Add($"{Figure.Of(input.WaterPercent!.Value, 1)} % water: {v switch { WaterVerdict.Good => "good", WaterVerdict.PlanChange => "plan a change", _ => "change it" }}.");
            trail.Evidence("Water by test pen", says[^1], "practice-fluid");
        }

        double? margin = null;
        if (input.HottestCelsius is { } hot && dry is not null)
        {
            // With any water in it only the wet figure is promised.
            var promised = input.WaterPercent is 0 ? dry.Value : wet!.Value;
            margin = promised - hot;
            trail.Formula("Margin to boiling", "least boiling point - hottest", $"{Figure.Of(promised)} - {Figure.Of(hot)}", $"{Figure.Of(margin.Value)} degrees", "fmvss-116");
            says.Add(margin > 0 ? $"{Figure.Of(margin.Value)} degrees are left to boiling." : $"It may boil: {Figure.Of(-margin.Value)} degrees over what {Name(input.Cap)} is sure to stand. The pedal would go soft.");
        }

        if (dry is null && input.Cap is FluidGrade.MineralOil or FluidGrade.Class6) says.Add($"{Name(input.Cap)}: boiling points are the maker's; FMVSS 116 gives none.");
        if (says.Count == 0) says.Add($"{Name(input.Cap)}, from a fresh bottle.");
        return new(mix, counts, dry, wet, water, margin, says, trail.Conclude(says[0]).WouldChange("What the cap says: it outranks every table.").Done());
    }

    /// <summary>A grade as it stands on the bottle.</summary>
    internal static string Name(FluidGrade grade) => grade switch
    {
        FluidGrade.Dot3 => "DOT 3",
        FluidGrade.Dot4 => "DOT 4",
        FluidGrade.Class6 => "ISO 4925 class 6",
        FluidGrade.Dot51 => "DOT 5.1",
        FluidGrade.Dot5 => "DOT 5 silicone",
        FluidGrade.MineralOil => "mineral oil",
        _ => throw new InputException(new InputError("grade", grade.ToString(), "a known fluid", "That fluid is not known.")),
    };

    private static (MixVerdict, FluidGrade?) Mix(FluidGrade cap, FluidGrade bottle)
    {
        if (cap == bottle) return (MixVerdict.AsTheCap, cap);
        if (!Glycol(cap) || !Glycol(bottle)) return (MixVerdict.Never, null);
        // Class 6 is wanted for how thin it is: any other glycol thickens it.
        if (cap == FluidGrade.Class6) return (MixVerdict.LowersTheGrade, bottle);
        var lowest = Rank(bottle) < Rank(cap) ? bottle : cap;
        return (lowest == cap ? MixVerdict.Mixes : MixVerdict.LowersTheGrade, lowest);
    }

    private static bool Glycol(FluidGrade g) => g is FluidGrade.Dot3 or FluidGrade.Dot4 or FluidGrade.Class6 or FluidGrade.Dot51;
    private static int Rank(FluidGrade g) => g switch { FluidGrade.Dot3 => 0, FluidGrade.Dot4 or FluidGrade.Class6 => 1, _ => 2 };

    private static (double? Dry, double? Wet) Boiling(FluidGrade grade) => grade switch
    {
        FluidGrade.Dot3 => (205, 140),
        FluidGrade.Dot4 => (230, 155),
        FluidGrade.Dot51 or FluidGrade.Dot5 => (260, 180),
        _ => (null, null),
    };
}
