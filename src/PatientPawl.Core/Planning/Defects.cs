namespace PatientPawl.Core.Planning;

/// <summary>What a defect forbids until it is put right.</summary>
[Flags]
public enum Forbidden
{
    /// <summary>Nothing.</summary>
    Nothing = 0,
    /// <summary>To press the pedal, and to bleed.</summary>
    Pedal = 1,
    /// <summary>That the pedal counts as proved.</summary>
    PedalProof = 2,
    /// <summary>To move the car at all, a pull against its own brake too.</summary>
    Move = 4,
    /// <summary>To drive it on the road.</summary>
    Road = 8,
    /// <summary>To stop it firmly, as a bed-in does.</summary>
    FirmStops = 16,
    /// <summary>To hand it over.</summary>
    HandOver = 32,
    /// <summary>To drive it, to stop it firmly and to hand it over.</summary>
    Drive = Road | FirmStops | HandOver,
    /// <summary>All of it.</summary>
    Everything = Pedal | PedalProof | Move | Drive,
}

/// <summary>Who may leave a defect as it is.</summary>
public enum LeftBy
{
    /// <summary>Nobody: it is put right. An inspection, which opens nothing, names it.</summary>
    Nobody,
    /// <summary>The lead, by name and reason, where the car is closed up as it is.</summary>
    Lead,
    /// <summary>Whoever closes up: the car is no worse for it.</summary>
    Anyone,
}

/// <summary>
/// A defect that a finding leaves on a car: the variable that says how it stands, what it forbids until it is put right, and who may leave it
/// open. Every finding names its own; interlocks, goals and the lead's word are made of them. Common practice, no source.
/// </summary>
/// <param name="Asked">How it stands: due, done, or left open.</param>
/// <param name="Id">Its id; the step that is the lead's word for it is called by it, kept for ever in stored events.</param>
/// <param name="Name">What the lead leaves open, in a few words.</param>
/// <param name="Sound">What is so once it is put right, as a condition says it.</param>
/// <param name="Forbids">What it forbids until then.</param>
/// <param name="LeftBy">Who may leave it open where the car is closed up.</param>
public sealed record Defect(StateVariable<Asked> Asked, string Id, string Name, string Sound, Forbidden Forbids, LeftBy LeftBy)
{
    // Where the car itself shows that it is put right: the part that was not fit is a new one. And where it shows that it is not.
    internal Func<Where, Requirement[]>? Renewed { get; init; }
    internal Func<Where, Requirement[]>? Stays { get; init; }

    /// <summary>True where the lead may leave it open in this job: an inspection mends nothing, and who closes up goes no further than what is there.</summary>
    public bool CanBeLeft(PlanSetup setup)
    {
        ArgumentNullException.ThrowIfNull(setup);
        return LeftBy != LeftBy.Anyone && (setup.InspectOnly || (setup.ClosesUp && LeftBy == LeftBy.Lead));
    }

    /// <summary>The step that is the lead's word for it.</summary>
    internal string LeftOpenId => $"left-open-{Id}";

    /// <summary>It is put right; where it may be, left open counts too.</summary>
    internal IEnumerable<Condition> PutRight(bool orLeftOpen)
    {
        foreach (var where in Asked.PerCorner ? new[] { Where.Left, Where.Right } : [Where.Car])
        {
            List<Requirement[]> ways = [[Asked.At(where, Planning.Asked.Nothing, Planning.Asked.Done)]];
            if (Renewed?.Invoke(where) is { } renewed) ways.Add(renewed);
            // What keeps the car off the road is left open with a tag that says so.
            if (orLeftOpen) ways.Add([Asked.At(where, Planning.Asked.LeftOpen), .. KeepsOffTheRoad ? [Car.NoRoad.Is(Done.Yes)] : Array.Empty<Requirement>()]);
            yield return Condition.Any([.. ways]).Saying(where switch { Where.Left => $"{Sound}, left", Where.Right => $"{Sound}, right", _ => Sound });
        }
    }

    /// <summary>It is left open somewhere: any of these.</summary>
    internal IEnumerable<Requirement[]> Left()
    {
        foreach (var where in Asked.PerCorner ? new[] { Where.Left, Where.Right } : [Where.Car])
        {
            var left = Asked.At(where, Planning.Asked.LeftOpen);
            if (Stays is null) yield return [left];
            else foreach (var stays in Stays(where)) yield return [left, stays];
        }
    }

    internal bool KeepsOffTheRoad => (Forbids & Forbidden.Road) != 0;
}

/// <summary>Every defect there is.</summary>
public static class Defects
{
    private const Forbidden Moves = Forbidden.Move | Forbidden.Drive;

    // Under the pedal.
    internal static readonly Defect Hose = new(Corner.HoseMend, "brake-hose", "Brake hose", "the brake hose sound", Forbidden.Everything, LeftBy.Nobody);
    internal static readonly Defect HoseThatCarried = new(Corner.HoseLook, "strained-hose", "Strained hose", "the hose that carried its caliper looked at", Forbidden.Everything, LeftBy.Nobody);
    internal static readonly Defect BleedScrew = new(Corner.ScrewMend, "bleed-screw", "Bleed screw", "the bleed screw sound", Forbidden.Everything, LeftBy.Nobody);
    internal static readonly Defect Pipes = new(Car.Pipes, "pipes-and-hoses", "Pipes and hoses", "pipes and hoses sound", Forbidden.Everything, LeftBy.Nobody);
    internal static readonly Defect Wet = new(Corner.Wet, "fluid-shows", "Fluid shows", "the brake dry", Forbidden.Everything, LeftBy.Nobody);
    internal static readonly Defect Pedal = new(Car.PedalTrouble, "soft-pedal", "Soft pedal", "the cause of the soft pedal found", Forbidden.PedalProof | Moves, LeftBy.Nobody);

    // What carries the brake and the wheel.
    internal static readonly Defect Hub = new(Corner.HubMend, "hub-or-thread", "Hub or thread", "hub and threads sound", Moves, LeftBy.Nobody);
    internal static readonly Defect WheelSeat = new(Corner.WheelSeat, "wheels-seat", "Wheel's seat", "the wheel flat on its hub", Moves, LeftBy.Nobody);
    internal static readonly Defect HubPits = new(Corner.HubPit, "pitted-hub", "Pitted hub", "the pitted hub judged", Forbidden.Drive, LeftBy.Lead);
    internal static readonly Defect SpeedRing = new(Corner.RingLook, "speed-ring", "Speed ring", "the speed ring looked at", Forbidden.Drive, LeftBy.Nobody);
    internal static readonly Defect SpeedSensor = new(Corner.SpeedSensorMend, "speed-sensor", "Speed sensor", "the speed sensor sound", Forbidden.Drive, LeftBy.Lead);
    internal static readonly Defect NutKey = new(Corner.NutKey, "nut-key", "Nut key", "the locking-nut key at hand", Forbidden.Drive, LeftBy.Nobody);
    internal static readonly Defect RotorScrew = new(Corner.BrokenScrew, "rotor-screw", "Rotor screw", "the broken rotor screw decided about", Forbidden.Drive, LeftBy.Nobody);

    // What rubs and what guides it.
    internal static readonly Defect Pads = new(Car.UnfitPads, "unfit-pads", "Unfit pads", "pads that are fit", Forbidden.Drive, LeftBy.Lead) { Renewed = _ => Corner.Pads.Both(PadState.New), Stays = _ => Corner.Pads.Both(PadState.Old) };
    internal static readonly Defect Rotors = new(Car.UnfitRotors, "unfit-rotors", "Unfit rotors", "rotors that are fit", Forbidden.Drive, LeftBy.Lead) { Renewed = _ => Corner.Rotor.Both(Rotor.New), Stays = _ => Corner.Rotor.Both(Rotor.Old) };
    internal static readonly Defect Shoes = new(Car.UnfitShoes, "unfit-shoes", "Unfit shoes", "parking shoes that are fit", Forbidden.Drive, LeftBy.Lead) { Renewed = _ => Corner.Shoes.Both(ShoesState.NewSet), Stays = _ => Corner.Shoes.Both(ShoesState.Set, ShoesState.BackedOff) };
    internal static readonly Defect Caliper = new(Corner.UnfitCaliper, "unfit-caliper", "Unfit caliper", "a caliper that is fit", Forbidden.Drive, LeftBy.Lead) { Renewed = w => [Corner.CaliperPart.At(w, CaliperPart.New)], Stays = w => [Corner.CaliperPart.At(w, CaliperPart.Old)] };
    internal static readonly Defect Hardware = new(Corner.Hardware, "frozen-pads", "Frozen pads", "pads free in their bracket, with new hardware", Forbidden.Drive, LeftBy.Lead);
    internal static readonly Defect PadSeat = new(Corner.PadEase, "pads-seat", "Pads' seat", "pads and clips that lie as they should", Forbidden.Drive, LeftBy.Lead);
    internal static readonly Defect Pins = new(Corner.PinKit, "slide-pins", "Slide pins", "slide pins that are sound", Forbidden.Drive, LeftBy.Lead);
    internal static readonly Defect PinSeat = new(Corner.PinSeat, "pins-seat", "Pins' seat", "slide pins that seat", Forbidden.Drive, LeftBy.Lead);
    internal static readonly Defect Bracket = new(Corner.BracketSwap, "sets-bracket", "Set's bracket", "the bracket that came with the caliper on", Forbidden.Drive, LeftBy.Nobody);
    internal static readonly Defect WearSensor = new(Corner.SensorMend, "wear-sensor", "Wear sensor", "the wear sensor renewed", Forbidden.HandOver, LeftBy.Lead);

    // The parking brake.
    internal static readonly Defect Cable = new(Corner.CableMend, "parking-cable", "Parking cable", "the parking cable sound", Forbidden.Drive, LeftBy.Lead);
    internal static readonly Defect Lever = new(Corner.LeverMend, "caliper-lever", "Caliper lever", "the lever coming back by itself", Forbidden.Drive, LeftBy.Nobody);
    internal static readonly Defect Actuator = new(Corner.ActuatorMend, "actuator", "Actuator", "an actuator that moves", Forbidden.Drive, LeftBy.Nobody);
    internal static readonly Defect Flush = new(Corner.FlushLook, "loose-actuator", "Loose actuator", "the actuator seen flush after its first apply", Forbidden.Drive, LeftBy.Nobody);
    internal static readonly Defect PlateMotor = new(Corner.PlateMotorMend, "plate-motor", "Plate motor", "a plate motor that moves", Forbidden.Drive, LeftBy.Nobody);
    internal static readonly Defect StarWheel = new(Corner.StarWheelMend, "star-wheel", "Star wheel", "a star wheel that turns", Forbidden.Drive, LeftBy.Nobody);
    internal static readonly Defect Creeps = new(Car.BrakeTrouble, "creeping-brake", "Creeping brake", "the cause of the creeping parking brake found", Moves, LeftBy.Nobody);

    // New parts, and what the car showed.
    internal static readonly Defect WrongFitted = new(Corner.WrongFitted, "wrong-parts", "Wrong parts", "no part on it that may be the wrong one", Forbidden.Drive, LeftBy.Nobody);
    internal static readonly Defect WrongCaliper = new(Corner.WrongCaliper, "wrong-caliper", "Wrong caliper", "no new caliper on it that is not the right one", Moves, LeftBy.Nobody);
    internal static readonly Defect RightPart = new(Car.RightPart, "missing-part", "Missing part", "the right part here", Forbidden.HandOver, LeftBy.Lead);
    internal static readonly Defect Trouble = new(Car.Trouble, "what-it-showed", "What it showed", "the cause of what the car showed found", Forbidden.Drive, LeftBy.Lead);
    internal static readonly Defect Lamp = new(Car.Lamp, "warning-lamp", "Warning lamp", "the warning lamp seen off", Forbidden.HandOver, LeftBy.Lead);

    // No worse for the car where the work behind them is given up.
    internal static readonly Defect RotorStuck = new(Corner.StuckRotor, "stuck-rotor", "Stuck rotor", "the rotor free", Forbidden.Nothing, LeftBy.Anyone);
    internal static readonly Defect WheelStuck = new(Corner.StuckWheel, "stuck-wheel", "Stuck wheel", "the wheel free", Forbidden.Nothing, LeftBy.Anyone);
    internal static readonly Defect RidgeCatches = new(Corner.Ridge, "ridge", "Ridge", "the shoes clear of the ridge", Forbidden.Nothing, LeftBy.Anyone);

    /// <summary>All of them.</summary>
    public static IReadOnlyList<Defect> All { get; } =
    [
        Hose, HoseThatCarried, BleedScrew, Pipes, Wet, Pedal, Hub, WheelSeat, HubPits, SpeedRing, SpeedSensor, NutKey, RotorScrew, Pads, Rotors, Shoes, Caliper, Hardware, PadSeat,
        Pins, PinSeat, Bracket, WearSensor, Cable, Lever, Actuator, Flush, PlateMotor, StarWheel, Creeps, WrongFitted, WrongCaliper, RightPart, Trouble, Lamp, RotorStuck, WheelStuck, RidgeCatches,
    ];

    // What the car may leave with: put right, or left open by the lead where that may be.
    internal static IEnumerable<Condition> Settled(PlanSetup setup) =>
        All.Where(d => d.LeftBy != LeftBy.Anyone).SelectMany(d => d.PutRight(d.CanBeLeft(setup)));

    // Left open is what keeps a car off the road.
    internal static IEnumerable<Defect> OffTheRoad => All.Where(d => d.KeepsOffTheRoad);
}
