namespace PatientPawl.Core.Planning;

/// <summary>What the plan keeps track of at each corner.</summary>
public static class Corner
{
    /// <summary>The identification.</summary>
    public static readonly StateVariable<Done> Identified = new("identification", true, VariableKind.Knowledge);
    /// <summary>The wheel.</summary>
    public static readonly StateVariable<Wheel> Wheel = new("wheel", true, VariableKind.Placement);
    /// <summary>The wheel nuts.</summary>
    public static readonly StateVariable<Bolts> Nuts = new("wheel nuts", true, VariableKind.Fastening);
    /// <summary>The caliper lever.</summary>
    public static readonly StateVariable<Lever> Lever = new("caliper lever", true, VariableKind.Proof, l => l == Planning.Lever.None ? l : Planning.Lever.NotSeen);
    /// <summary>The actuator.</summary>
    public static readonly StateVariable<Actuator> Actuator = new("actuator", true, VariableKind.Placement);
    /// <summary>The actuator screws.</summary>
    public static readonly StateVariable<Bolts> ActuatorScrews = new("actuator screws", true, VariableKind.Fastening);
    /// <summary>The spindle.</summary>
    public static readonly StateVariable<Spindle> Spindle = new("spindle", true, VariableKind.Placement, s => s == Planning.Spindle.Back ? Planning.Spindle.Unknown : s);
    /// <summary>The retraction method.</summary>
    public static readonly StateVariable<MethodState> Method = new("retraction method", true, VariableKind.Knowledge);
    /// <summary>The rotor screws.</summary>
    public static readonly StateVariable<Bolts> RotorScrews = new("rotor screws", true, VariableKind.Fastening);
    /// <summary>The caliper.</summary>
    public static readonly StateVariable<Caliper> Caliper = new("caliper", true, VariableKind.Placement);
    /// <summary>The slide-pin bolts.</summary>
    public static readonly StateVariable<Bolts> SlidePins = new("slide-pin bolts", true, VariableKind.Fastening);
    /// <summary>The pads.</summary>
    public static readonly StateVariable<PadState> Pads = new("pads", true, VariableKind.Placement);
    /// <summary>The bracket.</summary>
    public static readonly StateVariable<Bracket> Bracket = new("bracket", true, VariableKind.Placement);
    /// <summary>The bracket bolts.</summary>
    public static readonly StateVariable<Bolts> BracketBolts = new("bracket bolts", true, VariableKind.Fastening);
    /// <summary>The rotor.</summary>
    public static readonly StateVariable<Rotor> Rotor = new("rotor", true, VariableKind.Placement);
    /// <summary>The degreasing the new rotor.</summary>
    public static readonly StateVariable<Done> RotorClean = new("degreasing the new rotor", true, VariableKind.Knowledge, Doubts.Again);
    /// <summary>The cleaning the hub face.</summary>
    public static readonly StateVariable<Done> HubClean = new("cleaning the hub face", true, VariableKind.Knowledge, Doubts.Again);
    /// <summary>The cleaning the lands.</summary>
    public static readonly StateVariable<Done> LandsClean = new("cleaning the lands", true, VariableKind.Knowledge, Doubts.Again);
    /// <summary>The greasing the pins.</summary>
    public static readonly StateVariable<Done> PinsGreased = new("greasing the pins", true, VariableKind.Knowledge, Doubts.Again);
    /// <summary>The piston.</summary>
    public static readonly StateVariable<Piston> Piston = new("piston", true, VariableKind.Placement, p => p == Planning.Piston.Home ? Planning.Piston.NotSure : p);
    /// <summary>The room in the reservoir.</summary>
    public static readonly StateVariable<Room> Room = new("room in the reservoir", true, VariableKind.Knowledge, _ => Planning.Room.NotJudged);
    /// <summary>The measuring and judging.</summary>
    public static readonly StateVariable<Done> Judged = new("measuring and judging", true, VariableKind.Knowledge, Doubts.Again);
    /// <summary>A verdict on a part that stays.</summary>
    public static readonly StateVariable<Doubt> Doubt = new("doubt about a verdict", true, VariableKind.Knowledge);
    /// <summary>The parking shoes.</summary>
    public static readonly StateVariable<ShoesState> Shoes = new("parking shoes", true, VariableKind.Placement);
    /// <summary>The measuring of drum and shoes.</summary>
    public static readonly StateVariable<Done> ShoesJudged = new("measuring drum and shoes", true, VariableKind.Knowledge, Doubts.Again);
    /// <summary>The cleaning of the backing plate.</summary>
    public static readonly StateVariable<Done> PlateClean = new("cleaning the backing plate", true, VariableKind.Knowledge, Doubts.Again);
    /// <summary>New slide-pin bolts, where they are single-use.</summary>
    public static readonly StateVariable<NewBolts> NewPinBolts = new("new slide-pin bolts", true, VariableKind.Placement);
    /// <summary>New bracket or mounting bolts, where they are single-use.</summary>
    public static readonly StateVariable<NewBolts> NewBracketBolts = new("new bracket bolts", true, VariableKind.Placement);
    /// <summary>The hydraulics.</summary>
    public static readonly StateVariable<HydraulicsState> Hydraulics = new("hydraulics", true, VariableKind.Proof, h => h == HydraulicsState.Closed ? HydraulicsState.Unknown : h);
    /// <summary>The bleed screw.</summary>
    public static readonly StateVariable<Bolts> BleedScrew = new("bleed screw", true, VariableKind.Fastening);
    /// <summary>A bleeding in this job.</summary>
    public static readonly StateVariable<Done> Bled = new("bleeding", true, VariableKind.Knowledge);
    /// <summary>Two wheel nuts with washers that hold the rotor while the wheel is off.</summary>
    public static readonly StateVariable<Fitted> HoldingNuts = new("two nuts that hold the rotor", true, VariableKind.Placement);
    /// <summary>The look at this side while it is still assembled.</summary>
    public static readonly StateVariable<Done> Looked = new("look at this side", true, VariableKind.Knowledge, Doubts.Again);
    /// <summary>The turning free by hand.</summary>
    public static readonly StateVariable<Done> TurnsFree = new("turning free by hand", true, VariableKind.Proof, Doubts.Again);
    /// <summary>Whether the caliper stays.</summary>
    public static readonly StateVariable<CaliperPart> CaliperPart = new("caliper part", true, VariableKind.Placement);
    /// <summary>The hose.</summary>
    public static readonly StateVariable<HoseState> Hose = new("brake hose", true, VariableKind.Placement);
    /// <summary>The spot caliper.</summary>
    public static readonly StateVariable<SpotCaliper> Spot = new("spot caliper", true, VariableKind.Placement);
    /// <summary>The spot caliper's bolts.</summary>
    public static readonly StateVariable<Bolts> SpotBolts = new("spot caliper bolts", true, VariableKind.Fastening);
    /// <summary>The wear sensor.</summary>
    public static readonly StateVariable<Fitted> Sensor = new("wear sensor", true, VariableKind.Placement);
    /// <summary>The anti-rattle spring.</summary>
    public static readonly StateVariable<Fitted> RattleSpring = new("anti-rattle spring", true, VariableKind.Placement);
    /// <summary>The bracket that carries the hose.</summary>
    public static readonly StateVariable<Fitted> HoseBracket = new("hose bracket", true, VariableKind.Placement);
    /// <summary>The caps over the slide-pin bolts.</summary>
    public static readonly StateVariable<Fitted> PinCaps = new("pin caps", true, VariableKind.Placement);
    /// <summary>The plug of the star wheel's hole.</summary>
    public static readonly StateVariable<Fitted> HatPlug = new("hat plug", true, VariableKind.Placement);
    /// <summary>The cable's end at the caliper.</summary>
    public static readonly StateVariable<Fitted> CableEnd = new("cable end", true, VariableKind.Placement);
    /// <summary>The lead's look at bracket and caliper.</summary>
    public static readonly StateVariable<Done> LeadSigned = new("lead's look at the corner", true, VariableKind.Proof, Doubts.Again);
    /// <summary>New hardware for frozen pads.</summary>
    public static readonly StateVariable<Asked> Hardware = new("new hardware", true, VariableKind.Knowledge);
    /// <summary>New slide pins.</summary>
    public static readonly StateVariable<Asked> PinKit = new("new slide pins", true, VariableKind.Knowledge);
    /// <summary>A broken rotor screw.</summary>
    public static readonly StateVariable<Asked> BrokenScrew = new("broken rotor screw", true, VariableKind.Knowledge);
    /// <summary>A rotor stuck on its hub.</summary>
    public static readonly StateVariable<Asked> StuckRotor = new("stuck rotor", true, VariableKind.Knowledge);
    /// <summary>A wheel stuck on its hub.</summary>
    public static readonly StateVariable<Asked> StuckWheel = new("stuck wheel", true, VariableKind.Knowledge);
    /// <summary>A ridge that the shoes catch on.</summary>
    public static readonly StateVariable<Asked> Ridge = new("ridge", true, VariableKind.Knowledge);
    /// <summary>A trial of the piston: whether it moves at all.</summary>
    public static readonly StateVariable<Asked> Trial = new("trial of the piston", true, VariableKind.Knowledge);
    /// <summary>New parts that were fitted and are, or may be, the wrong ones.</summary>
    public static readonly StateVariable<Asked> WrongFitted = new("wrong parts fitted", true, VariableKind.Knowledge);
    /// <summary>A hose that is not sound.</summary>
    public static readonly StateVariable<Asked> HoseMend = new("hose to be renewed", true, VariableKind.Knowledge);
    /// <summary>A bleed screw that broke or does not turn.</summary>
    public static readonly StateVariable<Asked> ScrewMend = new("bleed screw to be renewed", true, VariableKind.Knowledge);
    /// <summary>A parking cable that is frayed or drags.</summary>
    public static readonly StateVariable<Asked> CableMend = new("parking cable to be renewed", true, VariableKind.Knowledge);
    /// <summary>A thread, stud, bearing or plate at the hub that is not fit.</summary>
    public static readonly StateVariable<Asked> HubMend = new("hub and threads to be put right", true, VariableKind.Knowledge);
    /// <summary>A wheel-speed sensor that is not fit.</summary>
    public static readonly StateVariable<Asked> SpeedSensorMend = new("speed sensor to be put right", true, VariableKind.Knowledge);

    /// <summary>A pad, clip or spring that does not lie as it should.</summary>
    public static readonly StateVariable<Asked> PadEase = new("pads and clips to be eased", true, VariableKind.Knowledge);
    /// <summary>A slide pin that does not seat.</summary>
    public static readonly StateVariable<Asked> PinSeat = new("slide pin to be seated", true, VariableKind.Knowledge);
    /// <summary>A hub face that is pitted.</summary>
    public static readonly StateVariable<Asked> HubPit = new("pitted hub to be judged", true, VariableKind.Knowledge);
    /// <summary>A speed ring on a hub that was struck.</summary>
    public static readonly StateVariable<Asked> RingLook = new("speed ring to be looked at", true, VariableKind.Knowledge);
    /// <summary>A wear sensor that is worn through, or whose lead is broken.</summary>
    public static readonly StateVariable<Asked> SensorMend = new("wear sensor to be renewed", true, VariableKind.Knowledge);
    /// <summary>A lever that does not come back by its own spring.</summary>
    public static readonly StateVariable<Asked> LeverMend = new("lever to be put right", true, VariableKind.Knowledge);
    /// <summary>A locking nut without its key.</summary>
    public static readonly StateVariable<Asked> NutKey = new("locking-nut key", true, VariableKind.Knowledge);
    /// <summary>A wheel that is not flat on its hub.</summary>
    public static readonly StateVariable<Asked> WheelSeat = new("wheel to be seated", true, VariableKind.Knowledge);
    /// <summary>A new caliper that brings its bracket.</summary>
    public static readonly StateVariable<Asked> BracketSwap = new("bracket that came with the caliper", true, VariableKind.Knowledge);
    /// <summary>An actuator that does not move its spindle.</summary>
    public static readonly StateVariable<Asked> ActuatorMend = new("actuator to be renewed", true, VariableKind.Knowledge);
    /// <summary>A caliper that was found not to be fit.</summary>
    public static readonly StateVariable<Asked> UnfitCaliper = new("caliper that is not fit", true, VariableKind.Knowledge);
    /// <summary>A new caliper, bracket, rotor or shoe that is on and is not the right one, or is spoiled.</summary>
    public static readonly StateVariable<Asked> WrongCaliper = new("new caliper that is not the right one", true, VariableKind.Knowledge);
    /// <summary>A hose that a clamp shuts: what lies behind it is cut off from the pedal.</summary>
    public static readonly StateVariable<Fitted> HoseClamp = new("clamp on the brake hose", true, VariableKind.Placement);
    /// <summary>Fluid that shows, where an inspection only finds it.</summary>
    public static readonly StateVariable<Asked> Wet = new("fluid that shows", true, VariableKind.Knowledge);
    /// <summary>A star wheel that is seized.</summary>
    public static readonly StateVariable<Asked> StarWheelMend = new("star wheel to be freed", true, VariableKind.Knowledge);
    /// <summary>A motor on the backing plate that does not move.</summary>
    public static readonly StateVariable<Asked> PlateMotorMend = new("plate motor to be renewed", true, VariableKind.Knowledge);
    /// <summary>An actuator whose screws have no figure: looked at again once its motor has pulled.</summary>
    public static readonly StateVariable<Asked> FlushLook = new("actuator to be seen flush again", true, VariableKind.Knowledge);
    /// <summary>A hose that its caliper hung on.</summary>
    public static readonly StateVariable<Asked> HoseLook = new("hose that carried its caliper", true, VariableKind.Knowledge);
}
