namespace PatientPawl.Core.Jobs;

/// <summary>What a technician can find at any step.</summary>
public enum FindingKind
{
    /// <summary>The piston does not go back, or its boot is torn: the caliper is renewed.</summary>
    StuckPiston,
    /// <summary>The rotor is not fit: the axle gets new ones.</summary>
    BadRotor,
    /// <summary>Pads that were to stay are not fit.</summary>
    BadPads,
    /// <summary>Parking shoes are not fit: lining loose, oiled or worn.</summary>
    BadShoes,
    /// <summary>Pads frozen in the bracket.</summary>
    FrozenPads,
    /// <summary>A slide pin is seized.</summary>
    SeizedPin,
    /// <summary>A rotor screw broke while it was undone.</summary>
    BrokenScrew,
    /// <summary>The rotor is stuck on its hub.</summary>
    StuckRotor,
    /// <summary>The wheel is stuck on its hub.</summary>
    StuckWheel,
    /// <summary>The hat catches on its shoes.</summary>
    Ridge,
    /// <summary>A new part is the wrong one.</summary>
    WrongPart,
    /// <summary>Fluid shows where the circuit is shut.</summary>
    FluidShows,
    /// <summary>A hose collapsed, cracked, twisted or hung on by its caliper.</summary>
    HoseUnsound,
    /// <summary>A pipe corroded or rubbed.</summary>
    PipeUnsound,
    /// <summary>A bleed screw broken, rounded or seized.</summary>
    BleedScrewBroken,
    /// <summary>A thread stripped in bracket, knuckle or caliper.</summary>
    ThreadStripped,
    /// <summary>A wheel stud, nut or its seat damaged.</summary>
    StudDamaged,
    /// <summary>A wheel bearing has play or grinds.</summary>
    BearingPlay,
    /// <summary>A backing plate bent, torn or rusted through.</summary>
    BackingPlate,
    /// <summary>A wheel-speed sensor, its ring or its lead damaged.</summary>
    SpeedSensor,
    /// <summary>A parking cable frayed.</summary>
    CableFrayed,
    /// <summary>A new part oily, damaged or defective.</summary>
    NewPartSpoiled,
    /// <summary>A warning lamp or a trouble code stays.</summary>
    LampStays,
    /// <summary>The pedal sinks, or stays soft.</summary>
    PedalSinks,
    /// <summary>The car pulls to one side.</summary>
    Pulls,
    /// <summary>Noise or shake on the drive.</summary>
    NoiseOnDrive,
    /// <summary>A rotor screw was broken when the car came.</summary>
    ScrewCameBroken,
    /// <summary>The head of a rotor screw is rounded.</summary>
    ScrewRounded,
    /// <summary>The hub's face has steps.</summary>
    HubStepped,
    /// <summary>The hub's face is pitted.</summary>
    HubPitted,
    /// <summary>A slide pin is worn.</summary>
    PinWorn,
    /// <summary>The bushing of a slide pin is swollen by the wrong grease.</summary>
    BushingSwollen,
    /// <summary>A slide pin springs back on trapped air.</summary>
    PinAir,
    /// <summary>A slide pin does not seat on too much grease.</summary>
    PinOverGreased,
    /// <summary>A pad is tight in its bracket after cleaning.</summary>
    PadTight,
    /// <summary>A clip or spring touches the rotor.</summary>
    ClipTouches,
    /// <summary>A pad is loose in its bracket.</summary>
    PadLoose,
    /// <summary>This corner has no wear sensor.</summary>
    NoSensor,
    /// <summary>A wear sensor is worn through.</summary>
    SensorWorn,
    /// <summary>The lead of a wear sensor is broken.</summary>
    SensorLead,
    /// <summary>Pads that would have passed are renewed all the same.</summary>
    PadsByChoice,
    /// <summary>Rotors that would have passed are renewed all the same.</summary>
    RotorsByChoice,
    /// <summary>A caliper hung by its hose.</summary>
    HungByHose,
    /// <summary>A parking lever does not come back by its own spring.</summary>
    LeverSticks,
    /// <summary>The key of a locking nut is missing.</summary>
    KeyMissing,
    /// <summary>A wheel does not lie flat on its hub.</summary>
    WheelNotFlat,
    /// <summary>Grease or fluid came on a new lining.</summary>
    GreaseOnLining,
    /// <summary>A new caliper brings its own bracket.</summary>
    BringsBracket,
    /// <summary>An actuator does not move its spindle any more.</summary>
    ActuatorDead,
    /// <summary>An electric brake moved by itself.</summary>
    MovesByItself,
    /// <summary>The wheel studs were lubricated when the car came.</summary>
    StudsLubricated,
    /// <summary>A screw came with anti-seize on it.</summary>
    AntiSeizeOnScrew,
    /// <summary>A part was missing when the car came.</summary>
    PartMissing,
    /// <summary>New parts are left over.</summary>
    PartsLeftOver,
    /// <summary>A screw piston turns on at the bottom of its bore.</summary>
    TurnsAtBottom,
    /// <summary>A piston goes in two stages.</summary>
    TwoStages,
    /// <summary>A piston turns the other way than the ruling says.</summary>
    OtherWay,
    /// <summary>A bolt that has to go in first, for an arm traps it.</summary>
    BoltFirst,
    /// <summary>Bolts that are not to be touched.</summary>
    BoltsLeftAlone,
    /// <summary>New rotors or calipers were fitted left for right.</summary>
    SidesMixedUp,
    /// <summary>The motor on a backing plate does not move.</summary>
    PlateMotorDead,
    /// <summary>A star wheel is seized.</summary>
    StarWheelSeized,
    /// <summary>A hose is clamped off, or was found so.</summary>
    HosePinched,
}
