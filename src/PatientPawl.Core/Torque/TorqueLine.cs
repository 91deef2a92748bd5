using PatientPawl.Core.Reasoning;
using PatientPawl.Core.Workshop;
using TorqueQuantity = UnitsNet.Torque;
using PatientPawl.Core.Vehicles;
using UnitsNet;

namespace PatientPawl.Core.Torque;

/// <summary>What a fastener does.</summary>
public enum FastenerRole
{
    /// <summary>Slide-pin bolt.</summary>
    SlidePin,
    /// <summary>Bracket or fixed-caliper mounting bolt.</summary>
    Bracket,
    /// <summary>Rotor retaining screw.</summary>
    RotorScrew,
    /// <summary>Screw that holds the electric actuator.</summary>
    ActuatorScrew,
    /// <summary>Banjo bolt at the hose.</summary>
    Banjo,
    /// <summary>Bleed screw.</summary>
    BleedScrew,
    /// <summary>Wheel nut or bolt.</summary>
    Wheel,
    /// <summary>Mounting bolt of a spot caliper.</summary>
    SpotCaliper,
}

/// <summary>ISO 898-1 property class.</summary>
public enum PropertyClass
{
    /// <summary>Not known: no strength check.</summary>
    NotKnown,
    /// <summary>4.8</summary>
    C48,
    /// <summary>5.8</summary>
    C58,
    /// <summary>8.8</summary>
    C88,
    /// <summary>9.8</summary>
    C98,
    /// <summary>10.9</summary>
    C109,
    /// <summary>12.9</summary>
    C129,
}

/// <summary>A fastener line of a spec sheet: what it is and how tight.</summary>
/// <param name="Role">What it does.</param>
/// <param name="PerCorner">How many on one corner, 1 to 10.</param>
/// <param name="ThreadDiameter">Nominal thread diameter, 4 to 24 mm; null when not known, and then there is no strength check.</param>
/// <param name="ThreadPitch">Thread pitch, 0.5 to 3 mm; null when not known.</param>
/// <param name="Class">Property class.</param>
/// <param name="Drive">The tool that fits, for example <c>hex 13</c>.</param>
/// <param name="Low">Torque, or the low end of a range; 1 to 500 N m.</param>
/// <param name="High">The high end of a range; null when a single figure.</param>
/// <param name="SingleUse">True when a new one goes in every time.</param>
/// <param name="SocketReaches">False when only a crowfoot gets to it.</param>
/// <param name="HoldingSpanner">True when the pin turns with its bolt and must be held.</param>
/// <param name="Note">A word from the sheet, or null.</param>
/// <param name="ThenAngle">Turned further by this angle once the torque is reached, 5 to 270 degrees; null when by torque alone.</param>
/// <param name="ReuseAllowed">True when the sheet says that bolts tightened by an angle may be used again.</param>
public sealed record TorqueLine(
    FastenerRole Role, int PerCorner, Length? ThreadDiameter, Length? ThreadPitch, PropertyClass Class, string Drive,
    TorqueQuantity Low, TorqueQuantity? High, bool SingleUse, bool SocketReaches, bool HoldingSpanner, string? Note,
    Angle? ThenAngle = null, bool ReuseAllowed = false)
{
    /// <summary>True where a person typed the figure because the sheet has none.</summary>
    public bool Typed { get; init; }

    /// <summary>Part number of the bolt, where it is renewed; null when the sheet is silent.</summary>
    public string? PartNumber { get; init; }

    /// <summary>Whether the maker wants thread locker.</summary>
    public Known Locker { get; init; }

    /// <summary>A word on each bolt in the order of tightening, as <c>upper: low-profile key, goes in first</c>; null when the sheet is silent.</summary>
    public IReadOnlyList<string>? BoltNotes { get; init; }

    /// <summary>What the sheet says of one of them beside its figure: note, locker, reach; empty when nothing.</summary>
    /// <param name="index">Which, from 1.</param>
    public string SaysOf(int index)
    {
        List<string> says = [];
        if (BoltNotes is { } notes && index >= 1 && index <= notes.Count) says.Add(notes[index - 1].TrimEnd('.') + ".");
        if (Locker != Known.NotKnown) says.Add(Locker == Known.Yes ? "Thread locker, on threads that are clean and dry." : "No thread locker.");
        if (!SocketReaches) says.Add("A socket does not reach it.");
        if (Note is { Length: > 0 } note) says.Add(note.TrimEnd('.') + ".");
        return string.Join(" ", says);
    }

    /// <summary>The figure to set: the middle of a range, or the single figure.</summary>
    public TorqueQuantity Wanted => High is { } high ? TorqueQuantity.FromNewtonMeters((Low.NewtonMeters + high.NewtonMeters) / 2) : Low;

    /// <summary>True when a new one goes in every time: the sheet says so, or it is stretched by an angle and the sheet does not allow it twice.</summary>
    public bool RenewedEveryTime => SingleUse || (ThenAngle is not null && !ReuseAllowed);

    /// <summary>The order in which those of one corner are tightened, by number round the circle.</summary>
    public IReadOnlyList<int> Order => PerCorner is >= 3 and <= 10 ? TighteningOrder.Star(PerCorner) : [.. Enumerable.Range(1, Math.Clamp(PerCorner, 0, 2))];

    internal void CheckInto(Checks checks)
    {
        var field = $"torques.{Role}";
        this.CheckInto(checks, field + ".");
        if (High is { } high && high < Low)
            checks.Add($"{field}.highNm", Figure.Of(high.NewtonMeters), $"at least {Figure.Of(Low.NewtonMeters)} N m", "The high end of the range is under its low end.");
    }

    /// <summary>The thread as the trade writes it, for example <c>M8x1.25</c>.</summary>
    public string Thread => ThreadDiameter is { } d && ThreadPitch is { } p ? $"M{Figure.Of(d.Millimeters)}x{Figure.Of(p.Millimeters)}" : "thread not known";
}

/// <summary>Fastener roles in words.</summary>
public static class Fasteners
{
    /// <summary>The role in words, for example <c>bracket bolt</c>.</summary>
    public static string Words(FastenerRole role) => role switch
    {
        FastenerRole.SlidePin => "slide-pin bolt",
        FastenerRole.Bracket => "bracket bolt",
        FastenerRole.RotorScrew => "rotor screw",
        FastenerRole.ActuatorScrew => "actuator screw",
        FastenerRole.Banjo => "banjo bolt",
        FastenerRole.BleedScrew => "bleed screw",
        FastenerRole.SpotCaliper => "spot-caliper bolt",
        _ => "wheel nut",
    };

    /// <summary>The class as it is marked on a bolt's head, for example <c>8.8</c>.</summary>
    public static string Words(PropertyClass marked) => marked switch
    {
        PropertyClass.C48 => "4.8",
        PropertyClass.C58 => "5.8",
        PropertyClass.C88 => "8.8",
        PropertyClass.C98 => "9.8",
        PropertyClass.C109 => "10.9",
        PropertyClass.C129 => "12.9",
        _ => "not known",
    };
}

/// <summary>The unit a torque is given in. Always chosen, never assumed.</summary>
public enum TorqueUnit
{
    /// <summary>Newton metre.</summary>
    Nm,
    /// <summary>Pound-force foot.</summary>
    LbfFt,
    /// <summary>Pound-force inch.</summary>
    LbfIn,
    /// <summary>Kilogram-force metre.</summary>
    KgfM,
}

/// <summary>Reads torque figures with their unit.</summary>
public static class TorqueReading
{
    /// <summary>Turns a figure and its unit into a torque.</summary>
    /// <exception cref="InputException">Not finite, not above 0, or over 500 N m.</exception>
    public static TorqueQuantity From(double value, TorqueUnit unit, string field = "value")
    {
        var torque = double.IsFinite(value) ? unit switch
        {
            TorqueUnit.Nm => TorqueQuantity.FromNewtonMeters(value),
            TorqueUnit.LbfFt => TorqueQuantity.FromPoundForceFeet(value),
            TorqueUnit.LbfIn => TorqueQuantity.FromPoundForceInches(value),
            _ => TorqueQuantity.FromKilogramForceMeters(value),
        } : TorqueQuantity.Zero;
        if (torque.NewtonMeters is >= 1 and <= 500) return torque;
        throw new InputException(new InputError(field, Figure.Of(value), "1 to 500 N m", $"{Figure.Of(value)} {Words(unit)} is {Figure.Of(torque.NewtonMeters)} N m: a brake or wheel fastener takes 1 to 500 N m."));
    }

    /// <summary>
    /// Reads the word for a unit. "psi", a bare "pounds" or "kg" are refused with the likely meaning offered.
    /// </summary>
    /// <exception cref="InputException">Naming the field <c>unit</c>.</exception>
    public static TorqueUnit Unit(string? word)
    {
        var text = (word ?? "").Trim().ToLowerInvariant().Replace("·", " ", StringComparison.Ordinal).Replace("-", " ", StringComparison.Ordinal);
        return text switch
        {
            "nm" or "n m" => TorqueUnit.Nm,
            "lbf ft" or "lbfft" or "lb ft" or "ft lb" or "ft lbf" => TorqueUnit.LbfFt,
            "lbf in" or "lbfin" or "lb in" or "in lb" or "in lbf" => TorqueUnit.LbfIn,
            "kgf m" or "kgfm" => TorqueUnit.KgfM,
            "psi" or "pounds per square inch" => throw Refuse(word, "That is a pressure. Did the sheet mean lbf ft or lbf in?"),
            "lb" or "lbs" or "pounds" or "pound" or "lbf" => throw Refuse(word, "Pounds alone is a weight. Did the sheet mean lbf ft or lbf in?"),
            "kg" or "kgf" or "kilo" or "kilos" => throw Refuse(word, "Kilograms alone is a weight. Did the sheet mean kgf m?"),
            _ => throw Refuse(word, "Torque units are N m, lbf ft, lbf in and kgf m."),
        };
    }

    /// <summary>The unit as printed.</summary>
    public static string Words(TorqueUnit unit) => unit switch
    {
        TorqueUnit.Nm => "N m",
        TorqueUnit.LbfFt => "lbf ft",
        TorqueUnit.LbfIn => "lbf in",
        _ => "kgf m",
    };

    private static InputException Refuse(string? word, string message) =>
        new(new InputError("unit", Figure.Shorten(word), "N m, lbf ft, lbf in, kgf m", message));
}

/// <summary>How a torque wrench shows its figure.</summary>
public enum WrenchType
{
    /// <summary>Clicks or shows at a set figure.</summary>
    Setting,
    /// <summary>A bending beam with a scale.</summary>
    BendingBeam,
}

/// <summary>A torque wrench of the workshop.</summary>
/// <param name="Id">Its short name, for example <c>W4</c>.</param>
/// <param name="Name">What it is.</param>
/// <param name="Maximum">Top of its scale, 5 to 1000 N m.</param>
/// <param name="Increment">Step of its scale, 0.01 to 10 N m.</param>
/// <param name="GripLength">Grip to square drive, 100 to 1500 mm.</param>
/// <param name="Type">How it shows its figure.</param>
/// <param name="CalibratedUntil">Last day of its calibration.</param>
public sealed record Wrench(string Id, string Name, TorqueQuantity Maximum, TorqueQuantity Increment, Length GripLength, WrenchType Type, DateOnly CalibratedUntil)
{
    /// <summary>What its certificates allow it, as a share; null where it has none.</summary>
    public double? CertifiedDeviation { get; init; }

    /// <summary>The deviation that torques are reckoned with, as a share: its certificates', or its class's.</summary>
    public double PermissibleDeviation => CertifiedDeviation ?? ClassDeviation;

    /// <summary>Largest deviation ISO 6789-1:2017 allows, as a share: 6 % for bending beams and up to 10 N m of maximum, 4 % above.</summary>
    internal double ClassDeviation => Type == WrenchType.BendingBeam || Maximum.NewtonMeters <= 10 ? 0.06 : 0.04;

    /// <summary>It as its certificates have it; without one, what was said of it and its class.</summary>
    /// <param name="certificates">Its certificates, in any order.</param>
    public Wrench By(IReadOnlyList<WrenchCertificate> certificates)
    {
        ArgumentNullException.ThrowIfNull(certificates);
        return WrenchCalibration.By(this, certificates);
    }

    /// <summary>Refuses impossible figures, all of them at once.</summary>
    /// <exception cref="InputException">Naming each field, value and range.</exception>
    public Wrench Checked()
    {
        var checks = new Checks().Text("id", Id, 20).Text("name", Name, 40).Range("maximumNm", Maximum.NewtonMeters, 5, 1000, "N m")
            .Range("incrementNm", Increment.NewtonMeters, 0.01, 10, "N m").Millimetres("gripLengthMm", GripLength, 100, 1500);
        if (Id is not null && Id.Any(c => !char.IsAsciiLetterOrDigit(c) && c is not ('-' or '_')))
            checks.Add("id", Figure.Shorten(Id), "letters, digits, - and _", "A wrench's short name is made of letters, digits, - and _.");
        checks.ThrowIfAny();
        return this;
    }
}

/// <summary>A crowfoot or offset spanner on the square drive.</summary>
/// <param name="Extension">Drive to bolt centre, 0 to 500 mm.</param>
/// <param name="AngleFromInLine">0 in line and lengthening, 90 across, 180 folded back.</param>
public sealed record Crowfoot(Length Extension, Angle AngleFromInLine);
