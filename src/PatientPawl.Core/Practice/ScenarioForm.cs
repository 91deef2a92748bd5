using PatientPawl.Core.Torque;

namespace PatientPawl.Core.Practice;

/// <summary>A figure of what is true of a car: its name in the open formats, what it is called, its unit and its range.</summary>
/// <param name="Key">Its name in the open formats, unit included.</param>
/// <param name="Says">What it is called.</param>
/// <param name="Unit">Its unit.</param>
/// <param name="Least">The least that a car can have.</param>
/// <param name="Most">The most that a car can have.</param>
/// <param name="IsOptional">True where a corner may have none.</param>
public sealed record TruthFigure(string Key, string Says, string Unit, double Least, double Most, bool IsOptional = false);

/// <summary>Something that a scenario may have or not.</summary>
/// <param name="Key">Its name in the open formats.</param>
/// <param name="Says">What it is called.</param>
/// <param name="More">What it means; null where the name says it.</param>
public sealed record ScenarioChoice<T>(T Key, string Says, string? More) where T : struct, Enum;

/// <summary>What a scenario can be made of, for its form and for its check alike.</summary>
/// <param name="Corner">Figures of a corner.</param>
/// <param name="Car">Figures of the car.</param>
/// <param name="CornerFaults">What can be wrong at a corner.</param>
/// <param name="CarFaults">What can be so with the car.</param>
/// <param name="Traps">Mistakes that it can invite.</param>
/// <param name="Trains">What it can be about.</param>
/// <param name="Fasteners">Fasteners that may need a crowfoot.</param>
public sealed record ScenarioForm(
    IReadOnlyList<TruthFigure> Corner,
    IReadOnlyList<TruthFigure> Car,
    IReadOnlyList<ScenarioChoice<CornerFault>> CornerFaults,
    IReadOnlyList<ScenarioChoice<CarFault>> CarFaults,
    IReadOnlyList<ScenarioChoice<TrapId>> Traps,
    IReadOnlyList<ScenarioChoice<Competence>> Trains,
    IReadOnlyList<ScenarioChoice<FastenerRole>> Fasteners)
{
    internal static readonly IReadOnlyList<(TruthFigure Figure, Func<CornerTruth, UnitsNet.Length?> Of)> CornerFigures =
    [
        (new("innerPadMm", "Inner pad", "mm", 0, 40), c => c.InnerPad),
        (new("outerPadMm", "Outer pad", "mm", 0, 40), c => c.OuterPad),
        (new("rotorMm", "Rotor, thinnest", "mm", 1, 40), c => c.Rotor),
        (new("pistonProudMm", "Piston proud", "mm", 0, 60), c => c.PistonProud),
        (new("drumMm", "Drum at 20 °C", "mm", 50, 500, IsOptional: true), c => c.Drum),
    ];

    internal static readonly IReadOnlyList<(TruthFigure Figure, Func<CarTruth, double> Of)> CarFigures =
    [
        (new("levelPercent", "Level on arrival", "%", 0, 150), c => c.LevelPercent),
        (new("batteryV", "Battery at rest", "V", 8, 15), c => c.Battery.Volts),
        (new("brakesAtC", "Brakes on arrival", "°C", -30, 400), c => c.BrakesAt.DegreesCelsius),
    ];

    /// <summary>Everything.</summary>
    public static ScenarioForm Whole { get; } = new(
        [.. CornerFigures.Select(f => f.Figure)],
        [.. CarFigures.Select(f => f.Figure)],
        [.. Enum.GetValues<CornerFault>().Select(f => new ScenarioChoice<CornerFault>(f, Words(f), null))],
        [.. Enum.GetValues<CarFault>().Select(f => new ScenarioChoice<CarFault>(f, Words(f), null))],
        [.. TrapCatalogue.All.Select(t => new ScenarioChoice<TrapId>(t.Id, t.WrongAction, t.State))],
        [.. Enum.GetValues<Competence>().Select(c => new ScenarioChoice<Competence>(c, c.Words(), null))],
        [.. Enum.GetValues<FastenerRole>().Select(r => new ScenarioChoice<FastenerRole>(r, Phrase.Capital(Torque.Fasteners.Words(r)), null))]);

    private static string Words(CornerFault fault) => fault switch
    {
        CornerFault.NotchedFace => "Notched motor piston",
        CornerFault.PistonStuck => "Piston stuck",
        CornerFault.BootSticks => "Boot sticks",
        CornerFault.BootTorn => "Boot torn, wet behind",
        CornerFault.PadsFrozen => "Pads rusted in",
        CornerFault.PinSeized => "Slide pin seized",
        CornerFault.HoseCollapsed => "Hose collapsed",
        CornerFault.ScrewBroken => "Rotor screw broken off",
        CornerFault.WrongPart => "New pads do not fit",
        CornerFault.SensorMissing => "New pad: no sensor",
        _ => throw new ArgumentOutOfRangeException(nameof(fault), fault, "It has no words."),
    };

    private static string Words(CarFault fault) => fault switch
    {
        CarFault.WeakBattery => "Battery sags under a routine",
        CarFault.ToolLostClosing => "Tool lost while the brake closes",
        CarFault.PressurisesItself => "Pressurises its brakes by itself",
        _ => throw new ArgumentOutOfRangeException(nameof(fault), fault, "It has no words."),
    };
}
