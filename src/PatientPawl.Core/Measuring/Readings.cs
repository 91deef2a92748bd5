namespace PatientPawl.Core.Measuring;

/// <summary>A kind of reading that a step carries.</summary>
public enum ReadingKind
{
    /// <summary>Reservoir level, per cent of the MIN to MAX band.</summary>
    ReservoirLevel,
    /// <summary>Inner pad, total thickness at its thinnest.</summary>
    InnerPad,
    /// <summary>Outer pad, total thickness at its thinnest.</summary>
    OuterPad,
    /// <summary>Rotor thickness, smallest found.</summary>
    RotorThickness,
    /// <summary>How far the piston stands proud.</summary>
    PistonProtrusion,
    /// <summary>Battery voltage.</summary>
    BatteryVoltage,
    /// <summary>Fluid drawn off.</summary>
    FluidDrawn,
    /// <summary>Turns or strokes made.</summary>
    TurnsMade,
    /// <summary>Apply and release cycles.</summary>
    Cycles,
    /// <summary>Pedal strokes until firm.</summary>
    PedalStrokes,
    /// <summary>Star-wheel clicks back.</summary>
    ClicksBack,
    /// <summary>Star-wheel clicks out.</summary>
    ClicksOut,
    /// <summary>How far the outer piston of an opposed caliper stands proud.</summary>
    OuterProtrusion,
}

/// <summary>What a kind of reading is called, its unit and its possible range.</summary>
/// <param name="Kind">The kind.</param>
/// <param name="Name">Its name.</param>
/// <param name="Unit">Its unit.</param>
/// <param name="Low">Least possible value.</param>
/// <param name="High">Greatest possible value.</param>
/// <param name="Instrument">The instrument it is usually taken with; null when none is needed.</param>
/// <param name="Optional">True when the step can go on without it.</param>
/// <param name="Uses">What its instrument gets at, one of them at least; empty when none is needed.</param>
public sealed record ReadingCard(ReadingKind Kind, string Name, string Unit, double Low, double High, string? Instrument, bool Optional, IReadOnlyList<InstrumentUse> Uses)
{
    /// <summary>Names of the job's instruments that get at it; empty outside a job.</summary>
    public IReadOnlyList<string> Serving { get; init; } = [];
}

/// <summary>One reading as taken.</summary>
/// <param name="Kind">The kind.</param>
/// <param name="Value">The value in the kind's unit.</param>
/// <param name="InstrumentId">The instrument, when there was one.</param>
public sealed record Reading(ReadingKind Kind, double Value, string? InstrumentId);

/// <summary>All kinds of reading.</summary>
public static class ReadingCatalogue
{
    /// <summary>The cards.</summary>
    public static IReadOnlyList<ReadingCard> All { get; } =
    [
        new(ReadingKind.ReservoirLevel, "Level, MIN to MAX", "%", 0, 150, null, false, []),
        new(ReadingKind.InnerPad, "Inner pad, with backing", "mm", 1, 60, "caliper", false, [InstrumentUse.Outside, InstrumentUse.Depth]),
        new(ReadingKind.OuterPad, "Outer pad, with backing", "mm", 1, 60, "caliper", false, [InstrumentUse.Outside, InstrumentUse.Depth]),
        new(ReadingKind.RotorThickness, "Rotor, thinnest", "mm", 2, 80, "micrometer", false, [InstrumentUse.Outside]),
        new(ReadingKind.PistonProtrusion, "Piston stands proud", "mm", 0, 100, "depth-gauge", false, [InstrumentUse.Depth]),
        new(ReadingKind.OuterProtrusion, "Outer piston stands proud", "mm", 0, 100, "depth-gauge", false, [InstrumentUse.Depth]),
        new(ReadingKind.BatteryVoltage, "Battery", "V", 6, 18, null, false, []),
        new(ReadingKind.FluidDrawn, "Drawn off", "mL", 0, 1000, null, false, []),
        new(ReadingKind.TurnsMade, "Turns made", "turns", 0, 100, null, true, []),
        new(ReadingKind.Cycles, "Cycles", "cycles", 1, 20, null, false, []),
        new(ReadingKind.PedalStrokes, "Strokes until firm", "strokes", 1, 100, null, true, []),
        new(ReadingKind.ClicksBack, "Clicks back", "clicks", 0, 200, null, true, []),
        new(ReadingKind.ClicksOut, "Clicks out", "clicks", 0, 200, null, true, []),
    ];

    /// <summary>The card of a kind.</summary>
    public static ReadingCard Card(this ReadingKind kind) => All.First(c => c.Kind == kind);
}
