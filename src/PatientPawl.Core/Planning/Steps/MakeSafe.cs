using PatientPawl.Core.Measuring;
using PatientPawl.Core.Workshop;
using static PatientPawl.Core.Planning.Given;
using static PatientPawl.Core.Planning.Place;

namespace PatientPawl.Core.Planning.Steps;

/// <summary>Nothing rolls, falls, wakes or moves by itself.</summary>
internal static class MakeSafe
{
    // The mechanism is driven back under parts that are together: caliper types over their pads, hats over their shoes, spots over their rotors.
    private static readonly Condition TogetherForService = Condition.All(
        [.. Corner.Caliper.Both(Caliper.On), .. Corner.Pads.Both(PadState.Old, PadState.New), .. Corner.Actuator.Both(Actuator.None, Actuator.Plugged)])
        .Saying("both calipers on, pads in and every actuator plugged in").When(s => s.IsMotor);

    private static readonly Condition SpotsForService = Condition.All(Corner.Spot.Both(SpotCaliper.On)).Saying("both spot calipers on").When(s => s.IsSpot);

    // A lamp or a display tells nothing of each spindle, nor of each cable.
    private static readonly IReadOnlyList<Effect> MechanismInDoubt =
    [
        .. Corner.Spindle.BothTo(Spindle.Unknown).Select(e => e.When(s => s.IsMotor)),
        Car.Cable.To(CableRun.Unknown).When(s => s.PullsCables),
    ];

    /// <summary>What a tool or a battery lost on the way leaves: nobody knows where the mechanism stands, nor a cable that it pulls.</summary>
    internal static IReadOnlyList<Effect> NobodyKnows { get; } = [Car.Brake.To(ParkingBrake.Unknown), .. MechanismInDoubt];

    private static readonly Outcome LostHalfWay = new("lost-half-way", "Lost half-way: nobody knows", NobodyKnows);

    // One motor went back and the other did not: that side is driven back by hand, and the plan goes on for both.
    private static Outcome OneStays(Side side) => new($"{side.Word()}-stays", $"The {side.Word()} one did not go back",
        [Car.Brake.To(ParkingBrake.Service), Corner.Spindle.OnlyTo(side, Spindle.Out), Corner.Spindle.OnlyTo(side.Other(), Spindle.Back)])
    { Applies = s => s.IsMotor };

    /// <summary>What a brake that has applied by itself may have moved.</summary>
    internal static readonly StateVariable[] Moved = [Corner.Spindle, Corner.Lever, Car.Cable];

    private static readonly Requirement KeyAtHand = Corner.NutKey.Is(Asked.Nothing, Asked.Done);

    public static IReadOnlyList<StepType> All { get; } =
    [
        new("chocks-in", "Chock both ways", Stage.MakeSafe, Lane.Car, RoundCar, 2, "The rear brake is about to stop holding the car.")
        {
            Needs = [Car.Chocks.Is(Chocks.Out)],
            Makes = [Car.Chocks.To(Chocks.In)],
            Tools = ["wheel chocks"],
            How = "Chocks at the other axle, both ways.",
        },
        new("battery-held", "Battery held up", Stage.MakeSafe, Lane.Car, Bonnet, 2, "The service function refuses a weak battery, and the actuators must not stop halfway.")
        {
            Applies = s => s.IsElectric,
            Needs = [Car.Battery.Is(Battery.Alone)],
            Makes = [Car.Battery.To(Battery.Supported)],
            Tools = ["battery charger"],
            Readings = [ReadingKind.BatteryVoltage],
            How = "Volts at rest first, then the charger on. 12.0 V is the usual floor.",
        },
        new("ignition-on", "Ignition on", Stage.MakeSafe, Lane.Car, Cabin, 1, "Switch, selector and scan tool work only with the ignition on.")
        {
            Applies = s => s.IsElectric,
            Needs =
            [
                Car.Key.Is(Key.Near),
                IgnitionOff,
                Condition.Any([Car.Pedal.Is(Pedal.Firm, Pedal.NotPumped)], [Car.Closing.Is(Closing.AsItCame, Closing.Closed, Closing.Cycled)]).Saying("a brake that is not about to be closed"),
            ],
            Makes = [Car.Ignition.To(Ignition.On)],
            Concerns = Concern.WakesCar | Concern.HandsOut,
            Cautions = [Cautions.SelfPressurising],
            How = "On, engine off.",
        },
        new("self-pressure-off", "Self-pressurising off", Stage.MakeSafe, Lane.Car, Cabin, 5, "Some cars press the brakes by themselves when a door opens or a key comes near: a piston out, or a finger in, before anyone touched the pedal.")
        {
            Soon = true,
            Needs = [Car.SelfPressure.Is(SelfPressure.NotRuledOut), ((Condition)Car.LookedOver.Is(Done.Yes)).Saying("the car looked over")],
            Makes = [Car.SelfPressure.To(SelfPressure.Disabled)],
            Outcomes = [new("ruled-out", "This car cannot do it", [Car.SelfPressure.To(SelfPressure.RuledOut)])],
            Cautions = [Cautions.SelfPressurising],
            How = "The maker's disable procedure, to its end; or the maker's data says that this car cannot do it. With neither the job stops here.",
        },
        new("codes-read", "Read codes", Stage.MakeSafe, Lane.Car, Cabin, 3, "Codes that were there before are told apart from those the job makes.")
        {
            Applies = s => s.ByTool,
            Soon = true,
            Needs = [IgnitionOn, Car.Codes.Is(Codes.Unread)],
            Makes = [Car.Codes.To(Codes.Read)],
            Tools = ["scan tool"],
            How = "Write what the tool says in the note.",
        },
        new("auto-inhibited", "Auto-apply off", Stage.MakeSafe, Lane.Car, Cabin, 1, "Auto-hold or auto-apply would close the brake on an open caliper.")
        {
            Applies = s => s.IsElectric,
            Needs = [IgnitionOn, Car.AutoApply.Is(AutoApply.Active)],
            Makes = [Car.AutoApply.To(AutoApply.Inhibited)],
            How = "Auto-hold and auto-apply off, as the sheet says.",
        },
        new("nuts-cracked", "Crack wheel nuts", Stage.MakeSafe, Lane.Corner, Place.Corner, 2, "On the ground the tyre holds against the wrench.")
        {
            OnWheels = true,
            Needs = [OnGround, Corner.Wheel.Is(Wheel.On), Corner.Nuts.Is(Bolts.Tight, Bolts.Torqued, Bolts.Snug), KeyAtHand, Chocked, Car.Gear.Is(Gear.Park)],
            Makes = [Corner.Nuts.To(Bolts.Cracked)],
            Tools = ["wheel-nut bar"],
            How = "A quarter turn each, no more. A locking nut by hand, with its key.",
        },
        new("nuts-cracked-raised", "Crack nuts, raised", Stage.MakeSafe, Lane.Corner, Place.Corner, 4, "The car stands on its stands already: nobody leans on a bar there.")
        {
            Needs = [Lifted, Corner.Wheel.Is(Wheel.On), Corner.Nuts.Is(Bolts.Tight, Bolts.Torqued), KeyAtHand],
            Makes = [Corner.Nuts.To(Bolts.Cracked)],
            Tools = ["impact wrench"],
            Cautions = [Cautions.Stands],
            How = "By the impact wrench, never a long bar on a raised car. A locking nut by hand, with its key.",
        },
        new("nuts-snugged", "Nuts snug again", Stage.MakeSafe, Lane.Corner, Place.Corner, 1, "A cracked nut is no fastening: the car neither comes down nor rolls on it.")
        {
            OnWheels = true,
            Needs = [Corner.Wheel.Is(Wheel.On), Corner.Nuts.Is(Bolts.Cracked)],
            Makes = [Corner.Nuts.To(Bolts.Snug)],
            Tools = ["wheel-nut bar"],
            How = "In star order, about half.",
        },
        new("lifted", "Lift, on stands", Stage.MakeSafe, Lane.Car, RoundCar, 6, "Nothing comes off a car that can come down.")
        {
            Needs =
            [
                OnGround,
                // The school that releases first does so before the first lift; a brake that was opened since may hold the car in the air.
                Condition.Any([BrakeOff], [Car.Closing.Is(Closing.Open, Closing.Closed, Closing.Cycled)]).Saying("the brake released before the first lift").When(s => (s.IsCaliperType || s.HatOpen || s.SpotOff) && !s.InspectOnly && !s.ClosesUp && s.Rules.Holding == HoldingRule.ReleasedFromStart),
            ],
            Makes = [Car.Position.To(CarPosition.Stands)],
            Concerns = Concern.Lifts,
            Tools = ["jack", "axle stands"],
            Cautions = [Cautions.Stands],
            How = "Jack and stands under the maker's points, then rock it.",
        },
        new("wheel-off", "Wheel off", Stage.MakeSafe, Lane.Corner, Place.Corner, 2, "The brake is behind it.")
        {
            Needs = [Lifted, Corner.Wheel.Is(Wheel.On), Corner.Nuts.Is(Bolts.Cracked, Bolts.Snug), Corner.StuckWheel.Is(Asked.Nothing, Asked.Done), KeyAtHand],
            // A wheel that is off is stuck no more, however it came off.
            Makes = [Corner.Wheel.To(Wheel.Off), Corner.Nuts.To(Bolts.Out), Corner.StuckWheel.To(Asked.Nothing)],
            Concerns = Concern.WheelOff,
            Cautions = [Cautions.Hot],
            How = "Keep the nuts together.",
        },
        new("wheel-freed", "Free the wheel", Stage.MakeSafe, Lane.Corner, Place.Corner, 8, "A wheel rusted to its pilot does not come off by pulling.")
        {
            Needs = [Lifted, Corner.Wheel.Is(Wheel.On), Corner.StuckWheel.Is(Asked.Due, Asked.LeftOpen)],
            Makes = [Corner.StuckWheel.To(Asked.Done)],
            Tools = ["mallet and a block of wood", "penetrating oil"],
            Cautions = [Cautions.Stands],
            How = "Nuts a turn loose, oil on the pilot, blows through wood on the tyre, low and high by turns. Never kick it on stands, never lie under it.",
        },
        new("gear-neutral", "Gear to neutral", Stage.MakeSafe, Lane.Car, Cabin, 1, "A hub turns by hand only in neutral, and a selector without power stays where it is.")
        {
            Needs = [Car.Gear.Is(Gear.Park), SelectorHasPower],
            Makes = [Car.Gear.To(Gear.Neutral)],
            Concerns = Concern.LeavesPark | Concern.HandsOut,
            How = "Chocks in first: nothing else holds it once the brake is off.",
        },
        new("brake-released", "Brake released", Stage.MakeSafe, Lane.Car, Cabin, 1, "A loaded mechanism cannot be opened.")
        {
            Applies = s => !s.IsPlain,
            Needs = [Car.Brake.Is(ParkingBrake.Applied), BothScrewsCracked.When(s => s.BrakeHoldsHub && !s.ClosesUp), IgnitionForTheSwitch, Inhibited],
            Makes = [Car.Brake.To(ParkingBrake.Released)],
            Concerns = Concern.ReleasesBrake | Concern.HandsOut,
            How = "By its own lever, pedal or switch. Watch the lamp go out.",
        },
        new("service-verified", "Verify the brake", Stage.MakeSafe, Lane.Car, Cabin, 3, "Nobody knows where the brake stands.")
        {
            Applies = s => !s.IsPlain,
            Needs = [Car.Brake.Is(ParkingBrake.Unknown)],
            Makes = [Car.Brake.To(ParkingBrake.Released)],
            Outcomes =
            [
                new("applied", "It is applied", [Car.Brake.To(ParkingBrake.Applied)]) { Needs = [Condition.All(Corner.Caliper.Both(Caliper.On)).When(s => s.IsCaliperType)] },
                new("in-service", "It is in service", [Car.Brake.To(ParkingBrake.Service), .. MechanismInDoubt]) { Applies = s => s.InService },
            ],
            Concerns = Concern.ReleasesBrake,
            How = "Look at the lamp, the display and both levers or spindles. Click on only when it is seen released.",
        },
        new("service-looked", "Service still there", Stage.MakeSafe, Lane.Car, Cabin, 2, "A battery that was disconnected, or a curious hand, loses the service position.")
        {
            Applies = s => s.InService,
            Needs = [Car.Brake.Is(ParkingBrake.ServiceInDoubt)],
            Makes = [Car.Brake.To(ParkingBrake.Service), Car.Cable.To(CableRun.Slack).When(s => s.PullsCables)],
            Outcomes = [new("lost", "It is lost", NobodyKnows)],
            HowFor = s => (s.ByTool ? "The tool says so, or the display," : "The display says so,") + " and tag and switch are as they were left.",
        },
        new("pipes-sound", "Pipes made sound", Stage.MakeSafe, Lane.Car, RoundCar, 30, "A pipe or hose that is not sound bursts under the pedal that is to prove the brakes.")
        {
            Needs = [Lifted, Car.Pipes.Is(Asked.Due, Asked.LeftOpen)],
            Makes = [Car.Pipes.To(Asked.Done), .. Corner.Hydraulics.BothTo(HydraulicsState.Open), .. Corner.BleedScrew.BothTo(Bolts.Snug)],
            Concerns = Concern.UnderCar | Concern.OpensBrake,
            Tools = ["flare-nut spanner", "hose plug"],
            Parts = ["brake pipe or hose"],
            Cautions = [Cautions.Stands, Cautions.Fluid, Cautions.Eyes],
            How = "Renewed by the maker's data, clipped as it lay, nothing rubbing. Both corners are bled after it.",
        },
        .. new[]
        {
            ("service-entered", (Func<PlanSetup, bool>)(s => s.ByTool), "The tool drives the mechanism back; only then can it be opened.", "scan tool", "Select the service function for the rear brake and wait until it stops. Say what the tool said."),
            ("service-entered-car", s => s.ByInCar, "The car drives the mechanism back itself; only then can it be opened.", "", "The sheet's sequence, step by step, with the clock beside it. The display confirms."),
            ("puller-released", s => s.ByPuller, "The box lets both cables go; only then do the levers lie on their stops.", "release key or pull", "The manual release, as the sheet says. Watch both levers come back."),
        }.Select(r => new StepType(r.Item1, "Service position", Stage.MakeSafe, Lane.Car, Cabin, 4, r.Item3)
        {
            Applies = r.Item2,
            Needs =
            [
                ((Condition)IgnitionOn).When(s => !s.ByPuller),
                ((Condition)Car.Battery.Is(Battery.Supported)).When(s => !s.ByPuller),
                Car.AutoApply.Is(AutoApply.Inhibited),
                BrakeReleased,
                Car.Tag.Is(Done.No),
                TogetherForService,
                SpotsForService,
                ((Condition)OnGround).When(s => s.ServiceOnGround),
            ],
            Makes =
            [
                Car.Brake.To(ParkingBrake.Service),
                .. Corner.Spindle.BothTo(Spindle.Back).Select(e => e.When(s => s.IsMotor)),
                Car.Cable.To(CableRun.Slack).When(s => s.PullsCables),
                .. Corner.Lever.BothTo(Lever.NotSeen).Select(e => e.When(s => s.IsPuller)),
            ],
            Outcomes = [LostHalfWay, OneStays(Side.Left), OneStays(Side.Right)],
            Concerns = Concern.ReleasesBrake | Concern.HandsOut,
            Tools = r.Item4.Length > 0 ? [r.Item4] : [],
            Cautions = [Cautions.Actuators],
            How = r.Item5,
        }),
        new("switch-tagged", "Tag switch and tool", Stage.MakeSafe, Lane.Car, Cabin, 1, "One press would drive the mechanism into an open brake.")
        {
            Applies = s => s.IsElectric,
            Needs = [Car.Tag.Is(Done.No)],
            Makes = [Car.Tag.To(Done.Yes)],
            Parts = ["do-not-touch tags"],
            HowFor = s => s.ByTool ? "Tags on the switch and on the tool: do not touch." : "A tag on the switch, and on a tool where one is plugged in: do not touch.",
        },
        new("ignition-left-on", "Leave ignition on", Stage.MakeSafe, Lane.Car, Cabin, 1, "Some units hold their service position only while they are awake and the tool is with them.")
        {
            ByChoice = ByChoice.Only,
            RightWhere = _ => "Only where the tool says so. The charger holds the battery, nothing is unplugged, doors and pedal are left alone.",
            Applies = s => s.ByTool && !s.AnyCaliperNew,
            Needs =
            [
                IgnitionOn,
                Car.Brake.Is(ParkingBrake.Service),
                Car.Tag.Is(Done.Yes),
                Car.Battery.Is(Battery.Supported),
                Inhibited,
                ((Condition)Car.SelfPressure.Is(SelfPressure.RuledOut, SelfPressure.Disabled)).Saying("self-pressurising brakes ruled out, or disabled by the maker's procedure"),
            ],
            Makes = [Car.LeftOn.To(Done.Yes)],
            Parts = ["do-not-touch tags"],
            Cautions = [Cautions.Actuators, Cautions.SelfPressurising],
            How = "The tool stays in its session, with its tag. A tag on the pedal; doors left as they are. No plug comes off while it is on.",
        },
        new("ignition-off", "Ignition off", Stage.MakeSafe, Lane.Car, Cabin, 1, "A sleeping car does not move its brakes.")
        {
            Applies = s => s.IsElectric,
            Needs =
            [
                IgnitionOn, Car.Closing.Is(Closing.AsItCame, Closing.Open),
                Condition.Any([Car.Gear.Is(Gear.Neutral)], [OnGround, Car.Closing.Is(Closing.AsItCame)], [OnGround, PedalProved])
                    .Saying("in neutral first, where hubs are still to be turned: a selector without power stays where it is"),
            ],
            Makes = [Car.Ignition.To(Ignition.Off)],
            How = "Off, doors left on the latch where a door wakes the car.",
        },
        new("release-proved", "Prove it released", Stage.MakeSafe, Lane.Car, RoundCar, 2, "Many cars apply again by themselves at ignition off; only a wheel that turns proves it.")
        {
            Applies = s => s.IsMotor,
            Needs = [Lifted, Car.Brake.Is(ParkingBrake.Released), Car.Gear.Is(Gear.Neutral), IgnitionOff],
            Makes = [Car.Brake.To(ParkingBrake.ProvedReleased)],
            Outcomes = [new("applied", "It has applied again", [Car.Brake.To(ParkingBrake.Applied)]) { Needs = [Condition.All(Corner.Caliper.Both(Caliper.On))], Doubts = Moved }],
            Concerns = Concern.UnderCar,
            How = "Ignition off, neutral: both hubs turn by hand.",
        },
        new("key-away", "Key out of range", Stage.MakeSafe, Lane.Car, Bench, 1, "A near key wakes the car.")
        {
            Applies = s => s.IsElectric,
            Needs = [IgnitionOff, Car.Key.Is(Key.Near)],
            Makes = [Car.Key.To(Key.Away)],
            How = "Tagged, in the office or a tin, out of range.",
        },
        new("car-asleep", "Wait for sleep", Stage.MakeSafe, Lane.Car, Bench, 5, "An actuator is unplugged only from a car that sleeps.")
        {
            Waits = true,
            Applies = s => s.IsElectric,
            Needs = [Car.Key.Is(Key.Away), IgnitionOff, Car.Sleep.Is(CarSleep.Awake)],
            Makes = [Car.Sleep.To(CarSleep.Asleep)],
            How = "Until every lamp and relay is quiet; the sheet says how long.",
        },
    ];
}
