using System.Globalization;
using PatientPawl.Core.Measuring;
using UnitsNet;
using PatientPawl.Core.Torque;

namespace PatientPawl.Core.Practice;

/// <summary>
/// What a gauge that is not there shows: the truth, off by what its class allows, scattered by its repeatability and rounded to its
/// resolution. The same reading of the same run shows the same figure.
/// </summary>
public static class PracticeGauge
{
    /// <summary>Reads.</summary>
    /// <param name="scenario">What is true.</param>
    /// <param name="world">The car as it is by now.</param>
    /// <param name="seed">The run's seed.</param>
    /// <param name="side">The corner; null for the car.</param>
    /// <param name="kind">What is read.</param>
    /// <param name="instrument">With what; null where no instrument is needed.</param>
    /// <param name="nth">How many times it was read before.</param>
    /// <returns>The figure in the unit of its kind.</returns>
    public static double Read(Scenario scenario, PracticeWorld world, int seed, Side? side, ReadingKind kind, Instrument? instrument,
        int nth)
    {
        ArgumentNullException.ThrowIfNull(scenario);
        ArgumentNullException.ThrowIfNull(world);
        var truth = Truth(scenario, world, side ?? Side.Left, kind, nth);
        if (instrument is null) return truth;
        return Shown(truth, instrument, seed, side ?? Side.Left, (int)kind, nth);
    }

    /// <summary>Reads at a point, for a bench: mm. A warm drum reads large.</summary>
    /// <param name="scenario">What is true.</param>
    /// <param name="world">The car as it is by now.</param>
    /// <param name="seed">The run's seed.</param>
    /// <param name="side">The corner.</param>
    /// <param name="measurand">What is read.</param>
    /// <param name="place">Where.</param>
    /// <param name="instrument">With what.</param>
    /// <param name="nth">How many times it was read before.</param>
    public static double ReadPoint(
        Scenario scenario, PracticeWorld world, int seed, Side side, Measurand measurand, string place, Instrument instrument, int nth)
    {
        ArgumentNullException.ThrowIfNull(scenario);
        ArgumentNullException.ThrowIfNull(world);
        ArgumentNullException.ThrowIfNull(place);
        ArgumentNullException.ThrowIfNull(instrument);
        var corner = scenario.Truth.At(side);
        var drum = Grown(corner.Drum?.Millimeters ?? 0, world.BrakesAt.DegreesCelsius);
        var pad = place.StartsWith("inner", StringComparison.Ordinal) ? corner.InnerPad : corner.OuterPad;
        var truth = measurand switch
        {
            Measurand.DrumDiameter or Measurand.NewDrumDiameter => drum,
            Measurand.OverShoes => drum - PracticeFigures.ShoesClearMm,
            Measurand.ShoeLining => PracticeFigures.ShoeLiningMm,
            Measurand.RotorThickness => corner.Rotor.Millimeters,
            Measurand.PadLining => (pad - scenario.Sheet.Pads.Backing).Millimeters,
            Measurand.RotorRunout => PracticeFigures.RunoutMm * Math.Sin(2 * Math.PI * nth / 8),
            _ => 0,
        };
        return Shown(truth, instrument, seed, side, -1 - (int)measurand, nth);
    }

    /// <summary>Size of an iron part at a temperature, of its size at 20 °C.</summary>
    internal static double Grown(double cold, double celsius) => cold * (1 + PracticeFigures.IronPerKelvin * (celsius - 20));

    private static double Truth(Scenario scenario, PracticeWorld world, Side side, ReadingKind kind, int nth)
    {
        var corner = scenario.Truth.At(side);
        return kind switch
        {
            ReadingKind.InnerPad => corner.InnerPad.Millimeters,
            ReadingKind.OuterPad => corner.OuterPad.Millimeters,
            ReadingKind.RotorThickness => corner.Rotor.Millimeters,
            ReadingKind.PistonProtrusion or ReadingKind.OuterProtrusion => world.ProudMm(side),
            ReadingKind.ReservoirLevel => Math.Round(Math.Min(world.LevelPercent, 150)),
            // At rest first; whoever reads again has hung the charger on.
            ReadingKind.BatteryVoltage => Math.Round(nth == 0 ? world.BatteryVolts : PracticeFigures.ChargerVolts, 1),
            ReadingKind.FluidDrawn => Math.Round(Math.Max(world.LevelPercent - 20, 0) * scenario.Sheet.Reservoir.Band.Milliliters / 100),
            ReadingKind.TurnsMade => Math.Round(Math.Max(corner.PistonProud.Millimeters - PracticeFigures.HomeMm,
                0) / (scenario.Sheet.Piston.Lead?.Millimeters ?? 1), 1),
            ReadingKind.Cycles => 4,
            ReadingKind.PedalStrokes => 7,
            ReadingKind.ClicksBack => 24,
            _ => 14,
        };
    }

    private static double Shown(double truth, Instrument instrument, int seed, Side side, int what, int nth)
    {
        // How far the gauge itself is off stays with it for the run; the scatter is each reading's own.
        var bias = Off(instrument, seed) * instrument.PermissibleError.Millimeters;
        var own = unchecked(((seed * 31 + (int)side) * 31 + what) * 31 + nth);
        // Box and Muller: two even numbers make a normal one.
        var normal = Math.Sqrt(-2 * Math.Log(1 - Chance(own))) * Math.Cos(2 * Math.PI * Chance(unchecked(own ^ 0x5bd1e995)));
        var scatter = (instrument.Repeatability ?? instrument.Resolution).Millimeters / 3 * normal;
        return double.Parse(IGauge.Show(Length.FromMillimeters(truth + bias + scatter), instrument, GaugeUnit.Mm),
            CultureInfo.InvariantCulture);
    }

    /// <summary>How far a gauge is off in a run, as a share of what its class allows: -1 to 1.</summary>
    internal static double Off(Instrument instrument, int seed) =>
        2 * Chance(instrument.Id.Aggregate(seed, (sum, letter) => unchecked(sum * 31 + letter))) - 1;

    /// <summary>An even number from 0 up to 1 that follows from another, always the same (SplitMix64 by Steele, Lea and Flood, 2014, from
    /// memory).</summary>
    private static double Chance(int from)
    {
        var z = unchecked((ulong)(uint)from * 0x9e3779b97f4a7c15 + 0x9e3779b97f4a7c15);
        z = unchecked((z ^ z >> 30) * 0xbf58476d1ce4e5b9);
        z = unchecked((z ^ z >> 27) * 0x94d049bb133111eb);
        return ((z ^ z >> 31) >> 11) * (1.0 / (1UL << 53));
    }
}
