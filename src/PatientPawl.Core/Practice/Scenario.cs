using PatientPawl.Core.Identification;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Torque;
using PatientPawl.Core.Vehicles;
using UnitsNet;

namespace PatientPawl.Core.Practice;

/// <summary>What somebody has to be able to do.</summary>
public enum Competence
{
    /// <summary>Say which brake it is.</summary>
    Identify,
    /// <summary>Send a piston home.</summary>
    Retract,
    /// <summary>Judge and set shoes in a hat.</summary>
    Shoes,
    /// <summary>Measure, and say what the reading settles.</summary>
    Measure,
    /// <summary>Keep the order of the work.</summary>
    Sequence,
    /// <summary>Work on an electric parking brake.</summary>
    Electric,
    /// <summary>Set a wrench.</summary>
    Torque,
    /// <summary>Keep fluid in and air out.</summary>
    Fluid,
    /// <summary>Prove the brake before the car moves.</summary>
    Prove,
    /// <summary>Write down what was found and done.</summary>
    Record,
}

/// <summary>What is wrong at a corner and is there to be found.</summary>
public enum CornerFault
{
    /// <summary>A motor caliper whose piston has notches in its face: they prove nothing.</summary>
    NotchedFace,
    /// <summary>The piston is stuck in its bore.</summary>
    PistonStuck,
    /// <summary>The lip of the boot sticks to the piston.</summary>
    BootSticks,
    /// <summary>The boot is torn and wet behind.</summary>
    BootTorn,
    /// <summary>The pads are rusted into the bracket.</summary>
    PadsFrozen,
    /// <summary>A slide pin is seized in its bore.</summary>
    PinSeized,
    /// <summary>The hose's inner wall has let go and keeps fluid in.</summary>
    HoseCollapsed,
    /// <summary>The rotor screw is broken off.</summary>
    ScrewBroken,
    /// <summary>The new pads in the box are another shape than the old ones.</summary>
    WrongPart,
    /// <summary>The new pad of this side carries no wear sensor, and the old one does.</summary>
    SensorMissing,
}

/// <summary>What is so with the car and can go wrong.</summary>
public enum CarFault
{
    /// <summary>The battery cannot hold its voltage through a routine.</summary>
    WeakBattery,
    /// <summary>The scan tool is lost while the brake closes.</summary>
    ToolLostClosing,
    /// <summary>The car pressurises its brakes by itself until that is switched off.</summary>
    PressurisesItself,
}

/// <summary>A corner as it truly is.</summary>
/// <param name="Architecture">What the brake is.</param>
/// <param name="InnerPad">Inner pad, total, 0 to 40 mm.</param>
/// <param name="OuterPad">Outer pad, total, 0 to 40 mm.</param>
/// <param name="Rotor">Rotor ring at its thinnest, 1 to 40 mm.</param>
/// <param name="PistonProud">How far the piston stands proud as it arrives, 0 to 60 mm.</param>
/// <param name="Drum">Drum in the hat at 20 °C, 50 to 500 mm; null where there is none.</param>
/// <param name="StarLoosensUp">True where the star wheel loosens upwards.</param>
/// <param name="Faults">What is wrong there.</param>
public sealed record CornerTruth(
    Architecture Architecture, Length InnerPad, Length OuterPad, Length Rotor, Length PistonProud, Length? Drum, bool StarLoosensUp,
        IReadOnlyList<CornerFault> Faults);

/// <summary>The car as it truly is.</summary>
/// <param name="Left">Its left corner.</param>
/// <param name="Right">Its right corner.</param>
/// <param name="LevelPercent">Level on arrival, 0 to 150 per cent of the band.</param>
/// <param name="Battery">Voltage at rest, 8 to 15 V.</param>
/// <param name="BrakesAt">How warm its brakes are as it arrives, -30 to 400 °C.</param>
/// <param name="Crowfoot">A crowfoot without which one fastener is not reached; null where every one is.</param>
/// <param name="Faults">What else is so.</param>
public sealed record CarTruth(
    CornerTruth Left, CornerTruth Right, double LevelPercent, ElectricPotential Battery, Temperature BrakesAt, NeededCrowfoot? Crowfoot,
        IReadOnlyList<CarFault> Faults)
{
    /// <summary>A corner.</summary>
    public CornerTruth At(Side side) => side == Side.Left ? Left : Right;

    internal bool Has(CarFault fault) => Faults.Contains(fault);
}

/// <summary>A crowfoot that one fastener needs: straight on, so that it lengthens the wrench.</summary>
/// <param name="Role">Which fastener.</param>
/// <param name="Extension">How far it moves the drive, 5 to 200 mm.</param>
/// <param name="Wrench">Grip length of the wrench, 100 to 1500 mm and longer than the crowfoot.</param>
public sealed record NeededCrowfoot(FastenerRole Role, Length Extension, Length Wrench)
{
    /// <summary>Torque at the bolt for a torque on the scale: the wrench is longer by the crowfoot.</summary>
    internal double AtTheBolt(double onTheScale) => onTheScale * (Wrench + Extension).Millimeters / Wrench.Millimeters;
}

/// <summary>A job to learn by: a car that is not there, and what is true of it.</summary>
/// <param name="Id">Its id: small letters, digits and hyphens, 1 to 40.</param>
/// <param name="Title">Its title.</param>
/// <param name="DriverSays">What the driver says.</param>
/// <param name="Vehicle">The vehicle.</param>
/// <param name="OdometerKm">Odometer, 0 to 2 000 000 km.</param>
/// <param name="Scope">What is renewed.</param>
/// <param name="Sheet">Its spec sheet.</param>
/// <param name="Truth">What is true of it; hidden from who practises.</param>
/// <param name="Traps">Mistakes that it invites.</param>
/// <param name="Trains">What it is about.</param>
public sealed record Scenario(
    string Id, string Title, string DriverSays, Vehicle Vehicle, int OdometerKm, JobScope Scope, SpecSheet Sheet, CarTruth Truth,
        IReadOnlyList<TrapId> Traps,
    IReadOnlyList<Competence> Trains)
{
    /// <summary>Refuses a scenario that no car could be, all that is wrong at once.</summary>
    /// <exception cref="InputException">Naming each field, value and range.</exception>
    public Scenario Checked()
    {
        var checks = new Checks().Text("title", Title, 80).Text("driverSays", DriverSays, 300)
            .Range("odometerKm", OdometerKm, 0, 2_000_000, "km");
        foreach (var (figure, of) in ScenarioForm.CarFigures)
            checks.Range($"truth.{figure.Key}", of(Truth), figure.Least, figure.Most, figure.Unit);
        if (Id is not { Length: > 0 and <= 40 } || Id.Any(c => !char.IsAsciiLetterLower(c) && !char.IsAsciiDigit(c) && c != '-'))
            checks.Add("id", Figure.Shorten(Id), "1 to 40 small letters, digits and hyphens",
                "An id is made of small letters, digits and hyphens.");
        if (Trains.Count == 0) checks.Add("trains", "nothing", "one competence at least", "Say what it is about.");
        foreach (var side in Sides.Both)
        {
            var (corner, at) = (Truth.At(side), $"truth.{side.Word()}");
            foreach (var (figure, of) in ScenarioForm.CornerFigures)
                checks.Millimetres($"{at}.{figure.Key}", of(corner), figure.Least, figure.Most);
            if (!Enum.IsDefined(corner.Architecture)) checks.Add($"{at}.architecture", corner.Architecture.ToString(), "a known brake",
                "That brake is not known.");
        }

        if (Truth.Crowfoot is { } crowfoot)
            checks.Millimetres("truth.crowfoot.extensionMm", crowfoot.Extension, 5, 200)
                .Millimetres("truth.crowfoot.wrenchMm", crowfoot.Wrench, 100, 1500);
        if (Truth.Crowfoot is { } arm && arm.Extension >= arm.Wrench)
            checks.Add("truth.crowfoot.extensionMm", Figure.Of(arm.Extension.Millimeters), "under the wrench's length",
                "No crowfoot is as long as its wrench.");
        checks.ThrowIfAny();
        return this with { Vehicle = Vehicle.Checked(), Sheet = Sheet.Checked() };
    }
}

/// <summary>How somebody practises.</summary>
public enum PracticeWay
{
    /// <summary>The plan is shown, as in a real job.</summary>
    Guided,
    /// <summary>The plan is hidden: the learner picks the next step.</summary>
    Alone,
}

/// <summary>What makes a job one of practice, said at its opening.</summary>
/// <param name="ScenarioId">The scenario.</param>
/// <param name="Seed">Whatever is chance in it follows from this.</param>
/// <param name="Way">How it is practised.</param>
public sealed record PracticeRun(string ScenarioId, int Seed, PracticeWay Way)
{
    /// <summary>The scenario itself, where it is the workshop's own; null for one that ships.</summary>
    public Scenario? Own { get; init; }

    /// <summary>The scenario; null where it is none of this version's.</summary>
    internal Scenario? Scenario => Own ?? ScenarioSet.Find(ScenarioId);
}
