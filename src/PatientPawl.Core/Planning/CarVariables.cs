namespace PatientPawl.Core.Planning;

/// <summary>What is left of something done once it is doubted.</summary>
internal static class Doubts
{
    /// <summary>It is done again.</summary>
    public static Done Again(Done _) => Done.No;
}

/// <summary>What the plan keeps track of on the car.</summary>
public static class Car
{
    /// <summary>The car.</summary>
    public static readonly StateVariable<CarPosition> Position = new("car", false, VariableKind.Placement);
    /// <summary>The chocks.</summary>
    public static readonly StateVariable<Chocks> Chocks = new("chocks", false, VariableKind.Placement);
    /// <summary>The gear.</summary>
    public static readonly StateVariable<Gear> Gear = new("gear", false, VariableKind.Placement);
    /// <summary>The ignition.</summary>
    public static readonly StateVariable<Ignition> Ignition = new("ignition", false, VariableKind.Placement);
    /// <summary>The car's electronics.</summary>
    public static readonly StateVariable<CarSleep> Sleep = new("car's electronics", false, VariableKind.Proof);
    /// <summary>The battery.</summary>
    public static readonly StateVariable<Battery> Battery = new("battery", false, VariableKind.Placement);
    /// <summary>The auto-apply.</summary>
    public static readonly StateVariable<AutoApply> AutoApply = new("auto-apply", false, VariableKind.Placement);
    /// <summary>The key.</summary>
    public static readonly StateVariable<Key> Key = new("key", false, VariableKind.Placement);
    /// <summary>The parking brake.</summary>
    public static readonly StateVariable<ParkingBrake> Brake = new("parking brake", false, VariableKind.Placement, b => b is ParkingBrake.Service or ParkingBrake.ServiceInDoubt ? ParkingBrake.ServiceInDoubt : ParkingBrake.Unknown);
    /// <summary>The closing of the brake.</summary>
    public static readonly StateVariable<Closing> Closing = new("closing of the brake", false, VariableKind.Proof, c => c == Planning.Closing.AsItCame ? c : Planning.Closing.Open);
    /// <summary>The parking brake proof.</summary>
    public static readonly StateVariable<Done> BrakeProved = new("parking brake proof", false, VariableKind.Proof, Doubts.Again);
    /// <summary>The tag on the switch.</summary>
    public static readonly StateVariable<Done> Tag = new("tag on the switch", false, VariableKind.Placement);
    /// <summary>Whether the ignition is left on for the whole of the work, as the tool says.</summary>
    public static readonly StateVariable<Done> LeftOn = new("ignition left on", false, VariableKind.Proof, Doubts.Again);
    /// <summary>The service route.</summary>
    public static readonly StateVariable<Route> Route = new("service route", false, VariableKind.Knowledge);
    /// <summary>Whether the brakes can pressurise themselves.</summary>
    public static readonly StateVariable<SelfPressure> SelfPressure = new("self-pressurising brakes", false, VariableKind.Placement);
    /// <summary>The look at the reservoir.</summary>
    public static readonly StateVariable<Done> Reservoir = new("look at the reservoir", false, VariableKind.Knowledge, Doubts.Again);
    /// <summary>The pedal.</summary>
    public static readonly StateVariable<Pedal> Pedal = new("pedal", false, VariableKind.Proof, _ => Planning.Pedal.NotPumped);
    /// <summary>The trouble codes.</summary>
    public static readonly StateVariable<Codes> Codes = new("trouble codes", false, VariableKind.Proof, _ => Planning.Codes.Unread);
    /// <summary>The comparing new with old.</summary>
    public static readonly StateVariable<Done> NewParts = new("comparing new with old", false, VariableKind.Knowledge, Doubts.Again);
    /// <summary>The look over the car.</summary>
    public static readonly StateVariable<Done> LookedOver = new("look over the car", false, VariableKind.Knowledge);
    /// <summary>The fluid level check.</summary>
    public static readonly StateVariable<Done> Level = new("fluid level check", false, VariableKind.Proof, Doubts.Again);
    /// <summary>The leak check.</summary>
    public static readonly StateVariable<Done> Leaks = new("leak check", false, VariableKind.Proof, Doubts.Again);
    /// <summary>The test drive.</summary>
    public static readonly StateVariable<Done> TestDrive = new("test drive", false, VariableKind.Proof, Doubts.Again);
    /// <summary>The hand-over.</summary>
    public static readonly StateVariable<Done> HandedOver = new("hand-over", false, VariableKind.Proof);
    /// <summary>The cable.</summary>
    public static readonly StateVariable<CableRun> Cable = new("cable", false, VariableKind.Placement, c => c == CableRun.None ? c : CableRun.Unknown);
    /// <summary>The unverified torques.</summary>
    public static readonly StateVariable<Acceptance> Acceptance = new("unverified torques", false, VariableKind.Knowledge);
    /// <summary>The reservoir's cap.</summary>
    public static readonly StateVariable<CapState> Cap = new("reservoir cap", false, VariableKind.Placement);
    /// <summary>The bed-in series.</summary>
    public static readonly StateVariable<Done> BedIn = new("bed-in", false, VariableKind.Proof, Doubts.Again);
    /// <summary>The lead's look at the wheels.</summary>
    public static readonly StateVariable<Done> WheelsSigned = new("lead's look at the wheels", false, VariableKind.Proof, Doubts.Again);
    /// <summary>A part that was wrong.</summary>
    public static readonly StateVariable<Asked> RightPart = new("the right part", false, VariableKind.Knowledge);
    /// <summary>Pipes and hoses that were not sound when it came in.</summary>
    public static readonly StateVariable<Asked> Pipes = new("pipes and hoses", false, VariableKind.Knowledge);
    /// <summary>What the car showed when it was tried: a lamp, a pull, a noise, a pedal that sinks.</summary>
    public static readonly StateVariable<Asked> Trouble = new("what the car showed", false, VariableKind.Knowledge);
    /// <summary>A pedal that sinks or stays soft: its cause is found before it is proved again.</summary>
    public static readonly StateVariable<Asked> PedalTrouble = new("pedal that sinks", false, VariableKind.Knowledge);
    /// <summary>A parking brake that creeps: its cause is found before it is cycled again.</summary>
    public static readonly StateVariable<Asked> BrakeTrouble = new("parking brake that creeps", false, VariableKind.Knowledge);
    /// <summary>Pads of this axle that were found not to be fit.</summary>
    public static readonly StateVariable<Asked> UnfitPads = new("pads that are not fit", false, VariableKind.Knowledge);
    /// <summary>Rotors of this axle that were found not to be fit.</summary>
    public static readonly StateVariable<Asked> UnfitRotors = new("rotors that are not fit", false, VariableKind.Knowledge);
    /// <summary>Parking shoes of this axle that were found not to be fit.</summary>
    public static readonly StateVariable<Asked> UnfitShoes = new("parking shoes that are not fit", false, VariableKind.Knowledge);
    /// <summary>The tag that says that this car is not to be driven, and that its driver was told.</summary>
    public static readonly StateVariable<Done> NoRoad = new("tag: not for the road", false, VariableKind.Knowledge);
    /// <summary>A warning lamp that this job can have lit: worn sensor, struck speed ring.</summary>
    public static readonly StateVariable<Asked> Lamp = new("warning lamp to be seen off", false, VariableKind.Knowledge);
}
