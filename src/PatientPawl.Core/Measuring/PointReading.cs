using UnitsNet;

namespace PatientPawl.Core.Measuring;

/// <summary>What a bench measures at points.</summary>
public enum Measurand
{
    /// <summary>Inside diameter of the drum that came.</summary>
    DrumDiameter,
    /// <summary>Inside diameter of a new drum.</summary>
    NewDrumDiameter,
    /// <summary>Ridge at the drum's open edge, radial.</summary>
    Ridge,
    /// <summary>Diameter over the shoes.</summary>
    OverShoes,
    /// <summary>Lining of a shoe.</summary>
    ShoeLining,
    /// <summary>Rotor thickness.</summary>
    RotorThickness,
    /// <summary>Dial at the rotor's face.</summary>
    RotorRunout,
    /// <summary>Lining of a pad, without its backing.</summary>
    PadLining,
}

/// <summary>What a measurand is called, where it is taken and what it can be.</summary>
/// <param name="Measurand">The measurand.</param>
/// <param name="Name">Its name.</param>
/// <param name="Places">Places it is taken at.</param>
/// <param name="HasDirection">True when an angle belongs to it.</param>
/// <param name="Low">Least possible value.</param>
/// <param name="High">Greatest possible value.</param>
/// <param name="Use">What the instrument must get at.</param>
public sealed record MeasurandCard(Measurand Measurand, string Name, IReadOnlyList<string> Places, bool HasDirection, Length Low, Length High, InstrumentUse Use);

/// <summary>One reading at one point. Never overwritten: a wrong one is struck out with a reason.</summary>
/// <param name="Id">Made where it was taken, so that it can be struck out.</param>
/// <param name="Measurand">What was measured.</param>
/// <param name="Place">Where, one of the measurand's places.</param>
/// <param name="Direction">At which angle; null where none belongs to it.</param>
/// <param name="Value">The reading.</param>
/// <param name="Instrument">What it was taken with, as it stood on the tool board.</param>
/// <param name="Celsius">Temperature of the part, -30 to 150 degrees C; null counts as 20.</param>
/// <param name="At">When, by the client's clock.</param>
public sealed record PointReading(Guid Id, Measurand Measurand, string Place, Angle? Direction, Length Value, Instrument Instrument, double? Celsius, DateTimeOffset At);

/// <summary>All measurands.</summary>
public static class MeasurandCatalogue
{
    /// <summary>The cards.</summary>
    public static IReadOnlyList<MeasurandCard> All { get; } =
    [
        Card(Measurand.DrumDiameter, "Drum, inside", InstrumentUse.Inside, 1, 500, true, "open-edge", "near-floor"),
        Card(Measurand.NewDrumDiameter, "New drum, inside", InstrumentUse.Inside, 1, 500, true, "open-edge", "near-floor"),
        Card(Measurand.Ridge, "Ridge, radial", InstrumentUse.Depth, 0, 5, false, "open-edge"),
        Card(Measurand.OverShoes, "Over the shoes", InstrumentUse.Outside, 1, 500, false, "now", "after"),
        Card(Measurand.ShoeLining, "Shoe lining", InstrumentUse.Depth, 0, 20, false, "front-anchor-end", "front-middle", "front-adjuster-end", "rear-anchor-end", "rear-middle", "rear-adjuster-end"),
        Card(Measurand.RotorThickness, "Rotor thickness", InstrumentUse.Outside, 0.1, 80, true, "ring"),
        Card(Measurand.RotorRunout, "Runout, dial", InstrumentUse.Deflection, -5, 5, true, "run-1", "run-2"),
        Card(Measurand.PadLining, "Pad lining", InstrumentUse.Depth, 0, 40, false, "inner-leading", "inner-trailing", "outer-leading", "outer-trailing"),
    ];

    /// <summary>The card of a measurand.</summary>
    public static MeasurandCard Card(this Measurand measurand) => All.First(c => c.Measurand == measurand);

    private static MeasurandCard Card(Measurand measurand, string name, InstrumentUse use, double low, double high, bool direction, params string[] places) =>
        new(measurand, name, places, direction, Length.FromMillimeters(low), Length.FromMillimeters(high), use);
}
