using UnitsNet;

namespace PatientPawl.Core.Measuring;

/// <summary>What an instrument can get at.</summary>
public enum InstrumentUse
{
    /// <summary>Between two outer faces: a pad, a rotor, a diameter over the shoes.</summary>
    Outside,
    /// <summary>Across a bore: the drum in the hat.</summary>
    Inside,
    /// <summary>Down to a face: lining over its backing, a piston below an edge.</summary>
    Depth,
    /// <summary>A face that moves past it: runout.</summary>
    Deflection,
}

/// <summary>A measuring instrument of the workshop.</summary>
/// <param name="Id">Its short name on the tool board.</param>
/// <param name="Name">What it is.</param>
/// <param name="Resolution">Smallest step it shows, 0.0001 to 5 mm.</param>
/// <param name="PermissibleError">Largest error its class or certificate allows, either way, 0 to 5 mm.</param>
/// <param name="IsDefault">True when the figures are from memory and not from a certificate.</param>
/// <param name="Repeatability">Stated repeatability; null counts as its resolution.</param>
/// <param name="CalibratedUntil">Last day of its calibration; null when none is kept.</param>
/// <param name="Uses">What it gets at; null means anything.</param>
public sealed record Instrument(
    string Id, string Name, Length Resolution, Length PermissibleError, bool IsDefault, Length? Repeatability = null, DateOnly? CalibratedUntil = null, IReadOnlyList<InstrumentUse>? Uses = null)
{
    /// <summary>Standard uncertainty of one reading from resolution and permissible error (JCGM 100:2008, rectangular limits). Always above 0.</summary>
    public Length StandardUncertainty() => UncertaintyBudget.Of(this).Combined;

    /// <summary>True when it gets at what is measured.</summary>
    public bool Serves(InstrumentUse use) => Uses is null || Uses.Contains(use);

    /// <summary>True when its calibration still runs, or none is kept.</summary>
    public bool InDate(DateOnly today) => CalibratedUntil is not { } until || until >= today;

    /// <summary>Refuses impossible figures, all of them at once.</summary>
    /// <exception cref="InputException">Naming each field, value and range.</exception>
    public Instrument Checked()
    {
        var checks = new Checks().Text("id", Id, 30).Text("name", Name, 40)
            .Millimetres("resolutionMm", Resolution, 0.0001, 5).Millimetres("permissibleErrorMm", PermissibleError, 0, 5).Millimetres("repeatabilityMm", Repeatability, 0, 5);
        if (Id.Any(c => !char.IsAsciiLetterOrDigit(c) && c is not ('-' or '_'))) checks.Add("id", Figure.Shorten(Id), "letters, digits, - and _", "A tool-board name is made of letters, digits, - and _.");
        if (Uses is { Count: 0 }) checks.Add("uses", "none", "outside, inside, depth or deflection", "Say what it gets at: outside, inside, depth or deflection.");
        checks.ThrowIfAny();
        return this;
    }
}

/// <summary>The instruments a workshop starts with; their figures are from memory and flagged as defaults.</summary>
public static class InstrumentCatalogue
{
    /// <summary>Ordinary instruments for pads, rotors, drums and piston depth.</summary>
    public static IReadOnlyList<Instrument> Defaults { get; } =
    [
        Make("caliper", "Digital caliper", 0.01, 0.03, InstrumentUse.Outside, InstrumentUse.Inside, InstrumentUse.Depth),
        Make("micrometer", "Plain micrometer", 0.01, 0.004, InstrumentUse.Outside),
        Make("fine-micrometer", "Digital micrometer", 0.001, 0.003, InstrumentUse.Outside),
        Make("dial", "Dial indicator", 0.01, 0.013, InstrumentUse.Deflection),
        Make("depth-gauge", "Depth gauge", 0.01, 0.03, InstrumentUse.Depth),
        Make("vernier", "Vernier caliper", 0.05, 0.05, InstrumentUse.Outside, InstrumentUse.Inside, InstrumentUse.Depth),
        Make("pad-gauge", "Pad gauge", 0.5, 0.3, InstrumentUse.Depth, InstrumentUse.Outside),
        Make("drum-gauge", "Drum gauge", 0.05, 0.1, InstrumentUse.Inside),
        Make("bore-micrometer", "Bore micrometer", 0.01, 0.015, InstrumentUse.Inside),
        Make("steel-rule", "Steel rule", 0.5, 0.3, InstrumentUse.Outside, InstrumentUse.Depth),
    ];

    /// <summary>The instrument with this id among the defaults, or null.</summary>
    public static Instrument? Find(string id) => Find(Defaults, id);

    /// <summary>The instrument with this id among those of a workshop, or null.</summary>
    public static Instrument? Find(IReadOnlyList<Instrument> instruments, string id)
    {
        ArgumentNullException.ThrowIfNull(instruments);
        return instruments.FirstOrDefault(i => i.Id == id);
    }

    /// <summary>The instrument with this id.</summary>
    /// <exception cref="InputException">The workshop has none.</exception>
    public static Instrument Get(IReadOnlyList<Instrument> instruments, string id) => Find(instruments, id)
        ?? throw new InputException(new InputError("instrumentId", Figure.Shorten(id), string.Join(", ", instruments.Select(i => i.Id)), "No such instrument in the workshop."));

    private static Instrument Make(string id, string name, double resolution, double error, params InstrumentUse[] uses) =>
        new(id, name, Length.FromMillimeters(resolution), Length.FromMillimeters(error), true, Uses: uses);
}
