using PatientPawl.Core.Hydraulics;
using PatientPawl.Core.Identification;
using PatientPawl.Core.Pads;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Torque;
using UnitsNet;

namespace PatientPawl.Core.Vehicles;

/// <summary>Which way a piston turns to go home, facing it.</summary>
public enum TurnDirection
{
    /// <summary>Clockwise.</summary>
    Clockwise,
    /// <summary>Anticlockwise.</summary>
    Anticlockwise,
}

/// <summary>An answer the maker's data may not give.</summary>
public enum Known
{
    /// <summary>The sheet does not say.</summary>
    NotKnown,
    /// <summary>Yes.</summary>
    Yes,
    /// <summary>No.</summary>
    No,
}

/// <summary>The caliper piston. Lengths 0 to 200 mm; null means the sheet does not say.</summary>
/// <param name="Diameter">Bore, 10 to 100 mm.</param>
/// <param name="PistonsPerCaliper">1 to 12.</param>
/// <param name="Lead">Travel a turn, 0.1 to 10 mm.</param>
/// <param name="HomeProtrusion">How far the face stands proud when home.</param>
/// <param name="DirectionLeft">Turning direction, left corner.</param>
/// <param name="DirectionRight">Turning direction, right corner.</param>
/// <param name="TwoStage">True when it goes home in two stages, one direction and then the other.</param>
/// <param name="Slots">Slots in the face that repeat every 360/n degrees; 0 for a plain cup.</param>
/// <param name="TurnsFreelyAtHome">Whether it may be turned on once it is home.</param>
/// <param name="OtherWayAllowed">True when the other direction may be tried on one that spins free.</param>
/// <param name="ProtrusionLimit">The furthest a piston may stand proud, 1 to 100 mm.</param>
/// <param name="ResealAllowed">Whether a leaking or torn caliper may be resealed.</param>
public sealed record PistonSpec(
    Length Diameter, int PistonsPerCaliper, Length? Lead, Length? HomeProtrusion, TurnDirection? DirectionLeft, TurnDirection? DirectionRight, bool TwoStage, int Slots,
    Known TurnsFreelyAtHome = Known.NotKnown, bool OtherWayAllowed = false, Length? ProtrusionLimit = null, Known ResealAllowed = Known.NotKnown);

/// <summary>The pads. Totals include backing plate and shims.</summary>
/// <param name="NewInnerTotal">New inner pad, total thickness.</param>
/// <param name="NewOuterTotal">New outer pad, total thickness.</param>
/// <param name="Backing">Backing plate with shims.</param>
/// <param name="MinimumLining">Least lining; null uses the flagged default of 2.0 mm.</param>
public sealed record PadSpec(Length NewInnerTotal, Length NewOuterTotal, Length Backing, Length? MinimumLining);

/// <summary>Which corner carries the wear sensor.</summary>
public enum SensorSide
{
    /// <summary>The left one.</summary>
    Left,
    /// <summary>The right one.</summary>
    Right,
    /// <summary>Both.</summary>
    Both,
}

/// <summary>What the pads of the set carry.</summary>
/// <param name="Indicator">At which end the wear indicator stands; null where the set has none, or the sheet is silent.</param>
/// <param name="Pin">Whether the inner pad has a pin for the piston's slot.</param>
/// <param name="SpringClip">Whether the inner pad has a spring clip that goes into the piston.</param>
/// <param name="Notch">Whether a notch or arrow says which way round a pad goes.</param>
/// <param name="SensorAt">Which corner carries the wear sensor; null when the sheet is silent.</param>
public sealed record PadSetSpec(PadEnd? Indicator, Known Pin = Known.NotKnown, Known SpringClip = Known.NotKnown, Known Notch = Known.NotKnown, SensorSide? SensorAt = null);

/// <summary>The rotor.</summary>
/// <param name="NewThickness">Thickness when new.</param>
/// <param name="MinimumThickness">Stamped or listed minimum; null when not known, and then it cannot be passed.</param>
/// <param name="HasScrews">True when screws hold the rotor to the hub.</param>
/// <param name="ComesOffWithBracketOn">True when the rotor comes off past the bracket.</param>
/// <param name="VariationLimit">Most thickness variation, 0.001 to 0.5 mm; null uses the flagged default of 0.015 mm.</param>
/// <param name="RunoutLimit">Most lateral runout, 0.005 to 1 mm; null uses the flagged default of 0.08 mm.</param>
public sealed record RotorSpec(Length NewThickness, Length? MinimumThickness, bool HasScrews, bool ComesOffWithBracketOn, Length? VariationLimit = null, Length? RunoutLimit = null)
{
    /// <summary>Thread of the jacking holes, for example <c>M8x1.25</c>; null where it has none, or the sheet is silent.</summary>
    public string? JackingThread { get; init; }
}

/// <summary>The drum in the hat and its shoes; null figures are not on the sheet.</summary>
/// <param name="Nominal">Diameter when new, 50 to 500 mm.</param>
/// <param name="Maximum">Maximum (discard) diameter.</param>
/// <param name="OutOfRoundLimit">Most out of round, 0.01 to 2 mm.</param>
/// <param name="MachineTo">Largest diameter it may be machined to.</param>
/// <param name="MinimumLining">Least shoe lining, 0.3 to 10 mm.</param>
/// <param name="TargetLow">Low end of the clearance band, of diameter, 0.05 to 5 mm.</param>
/// <param name="TargetHigh">High end.</param>
/// <param name="LockAndBackOff">Clicks back from lock under the count school, 1 to 60.</param>
/// <param name="AnchorDistance">Axle centre to the anchor, 20 to 250 mm.</param>
/// <param name="AdjusterDistance">Axle centre to the adjuster, 20 to 250 mm.</param>
/// <param name="Pitch">Pitch of the adjuster's thread, 0.5 to 3 mm.</param>
/// <param name="Teeth">Teeth of the star wheel, 5 to 60.</param>
/// <param name="LeftRightPair">True when the adjuster has a left- and a right-hand thread.</param>
public sealed record DrumSpec(
    Length? Nominal, Length? Maximum, Length? OutOfRoundLimit, Length? MachineTo, Length? MinimumLining, Length? TargetLow, Length? TargetHigh, int? LockAndBackOff,
    Length? AnchorDistance, Length? AdjusterDistance, Length? Pitch, int? Teeth, bool LeftRightPair)
{
    /// <summary>Where the star wheel's hole stands when it faces the wheel, as the hour of a clock, 1 to 12; null when the sheet is silent.</summary>
    public int? HoleAt { get; init; }

    internal void CheckInto(Checks checks)
    {
        if (Nominal is { } nominal && Maximum is { } maximum && maximum <= nominal)
            checks.Add("drum.maximumMm", Figure.Of(maximum.Millimeters), $"over {Figure.Of(nominal.Millimeters)} mm", "The drum's maximum is not over its diameter when new.");
        if (TargetLow is { } low && TargetHigh is { } high && low >= high)
            checks.Add("drum.targetHighMm", Figure.Of(high.Millimeters), $"over {Figure.Of(low.Millimeters)} mm", "The band's high end is not over its low end.");
    }
}

/// <summary>The brake fluid reservoir.</summary>
/// <param name="Band">Volume between MIN and MAX, 10 to 2000 mL.</param>
/// <param name="Headspace">Volume between MAX and the brim, 0 to 2000 mL.</param>
public sealed record ReservoirSpec(Volume Band, Volume Headspace);

/// <summary>How the two circuits are split.</summary>
public enum CircuitSplit
{
    /// <summary>One rear brake with the front one across the car.</summary>
    Diagonal,
    /// <summary>Both rear brakes on one circuit.</summary>
    ByAxle,
}

/// <summary>What the maker says of fluid and master cylinder.</summary>
/// <param name="Fluid">What the reservoir's cap says; null when the sheet is silent.</param>
/// <param name="MasterDiameter">Master cylinder bore, 10 to 50 mm.</param>
/// <param name="MasterStroke">Stroke of its piston, per chamber, 5 to 60 mm.</param>
/// <param name="Split">How the circuits are split; null counts as by axle, the larger gap.</param>
/// <param name="BleedOrder">Order of bleeding when all four are bled, as the maker writes it; null when the sheet is silent.</param>
public sealed record HydraulicSpec(FluidGrade? Fluid, Length? MasterDiameter, Length? MasterStroke, CircuitSplit? Split, string? BleedOrder);

/// <summary>What the maker says about the electric parking brake.</summary>
/// <param name="ServiceOnGround">True when the service routine must run on its wheels.</param>
/// <param name="BatteryFloor">Least voltage for the routine, 9 to 16 V; null uses 12.0 V, the usual floor.</param>
/// <param name="SpindleTool">Drive for turning the spindle by hand.</param>
/// <param name="InCar">The car's own sequence into the service position; null or empty when it has none.</param>
/// <param name="InCarClose">The car's own sequence out of it; null or empty when the switch closes it.</param>
/// <param name="NoManualRelease">True when the box that pulls the cables has no manual release.</param>
public sealed record ElectricSpec(
    bool ServiceOnGround, ElectricPotential? BatteryFloor, string SpindleTool, IReadOnlyList<SequenceStep>? InCar = null, IReadOnlyList<SequenceStep>? InCarClose = null, bool NoManualRelease = false);

/// <summary>One timed part of the car's own sequence.</summary>
/// <param name="Says">What to do.</param>
/// <param name="Seconds">How long, 0 to 600 s; 0 when it takes no particular time.</param>
public sealed record SequenceStep(string Says, int Seconds);

/// <summary>A vehicle's limits, fits and torques, each from its maker's data as entered in this workshop. Copied whole into a job.</summary>
/// <param name="Code">Short code printed beside figures taken from it.</param>
/// <param name="Title">What it covers.</param>
/// <param name="Source">Where the figures were taken from.</param>
/// <param name="Architecture">The architecture the maker names; null when not known.</param>
/// <param name="Piston">Piston.</param>
/// <param name="Pads">Pads.</param>
/// <param name="Rotor">Rotor.</param>
/// <param name="Reservoir">Reservoir.</param>
/// <param name="Electric">Electric parking brake; null when there is none.</param>
/// <param name="Torques">Fastener lines.</param>
/// <param name="Drum">The drum in the hat; null when there is none or the sheet is silent.</param>
/// <param name="Fittings">Small parts the vehicle has; null when the sheet is silent.</param>
/// <param name="Hydraulics">Fluid and master cylinder; null when the sheet is silent.</param>
public sealed record SpecSheet(
    string Code, string Title, string Source, Architecture? Architecture, PistonSpec Piston, PadSpec Pads, RotorSpec Rotor,
    ReservoirSpec Reservoir, ElectricSpec? Electric, IReadOnlyList<TorqueLine> Torques, DrumSpec? Drum = null, IReadOnlyList<Fitting>? Fittings = null, HydraulicSpec? Hydraulics = null)
{
    /// <summary>What the pads of the set carry; null when the sheet is silent.</summary>
    public PadSetSpec? PadSet { get; init; }

    /// <summary>The line for a fastener role, or null when the sheet has none.</summary>
    public TorqueLine? Line(FastenerRole role) => Torques.FirstOrDefault(t => t.Role == role);

    /// <summary>Refuses impossible figures, all of them at once.</summary>
    /// <exception cref="InputException">Naming each field, value and range.</exception>
    public SpecSheet Checked()
    {
        var checks = this.CheckInto(new Checks());
        // It stands in addresses and file names.
        if (Code.Length > 0 && !(char.IsAsciiLetterOrDigit(Code[0]) && Code.All(c => char.IsAsciiLetterOrDigit(c) || c is '-' or '_')))
            checks.Add("code", Figure.Shorten(Code), "letters, digits, - and _, a letter or digit first", "The sheet's code has a character that no address can carry.");
        foreach (var step in (Electric?.InCar ?? []).Concat(Electric?.InCarClose ?? [])) checks.Text("electric.inCar.says", step.Says, 120).Range("electric.inCar.seconds", step.Seconds, 0, 600, "s");
        if (Rotor.MinimumThickness is { } least && least >= Rotor.NewThickness)
            checks.Add("rotor.minimumThicknessMm", Figure.Of(least.Millimeters), $"under {Figure.Of(Rotor.NewThickness.Millimeters)} mm", "The rotor's minimum is not under its thickness when new.");
        Drum?.CheckInto(checks);
        foreach (var line in Torques) line.CheckInto(checks);
        checks.ThrowIfAny();
        return this;
    }
}

/// <summary>A vehicle as the job knows it.</summary>
/// <param name="Plate">Registration.</param>
/// <param name="Make">Maker.</param>
/// <param name="Model">Model.</param>
/// <param name="Use">What it does for a living, for example <c>meals van, van 3</c>.</param>
/// <param name="Vin">Vehicle identification number, or null.</param>
public sealed record Vehicle(string Plate, string Make, string Model, string Use, string? Vin)
{
    /// <summary>Refuses missing names and impossible VINs.</summary>
    /// <exception cref="InputException">Naming each field.</exception>
    public Vehicle Checked()
    {
        new Checks().Text("vehicle.plate", Plate, 16).Text("vehicle.make", Make, 40).Text("vehicle.model", Model, 40).Text("vehicle.use", Use, 60).ThrowIfAny();
        return Vin is null ? this : this with { Vin = Vehicles.Vin.Check(Vin).Vin };
    }
}
