using PatientPawl.Core.Planning;
using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Tests.Planning;

/// <summary>
/// Watches a walk for harm, written from what would hurt someone or something and not from the interlock table: each looks at
/// what changed on the car and asks whether a person would have been in danger.
/// </summary>
internal static class HazardMonitors
{
    public static void Watch(PlanSetup setup, CarState before, StepKey step, CarState after)
    {
        var motor = setup.Left.Architecture is Core.Identification.Architecture.MotorPush or Core.Identification.Architecture.MotorTurn;
        var cable = setup.Left.Architecture is Core.Identification.Architecture.CableScrew or Core.Identification.Architecture.LeverPush or Core.Identification.Architecture.RearHex or Core.Identification.Architecture.PullerScrew;
        bool Open(CarState s) => Core.Sides.Both.Any(x => s.Get(Corner.Caliper, x) != Caliper.On || s.Get(Corner.Pads, x) == PadState.None);
        bool Loose(CarState s) => Core.Sides.Both.Any(x => s.Get(Corner.SlidePins, x) is Bolts.Snug or Bolts.Out || s.Get(Corner.BracketBolts, x) is Bolts.Snug or Bolts.Out);
        void Safe(bool ok, string what)
        {
            if (!ok) throw new ShouldAssertException($"{what}, at {step}");
        }


        // The car itself.
        foreach (var side in Core.Sides.Both)
        {
            if (after.Get(Corner.Wheel, side) == Wheel.Off) Safe(after.Get(Car.Position) == CarPosition.Stands, "a wheel is off and the car is on the ground");
            if (before.Get(Corner.Nuts, side) != Bolts.Torqued && after.Get(Corner.Nuts, side) == Bolts.Torqued) Safe(after.Get(Car.Position) == CarPosition.Ground, "final wheel torque in the air");
        }

        var held = after.Get(Car.Brake) == ParkingBrake.Applied || after.Get(Car.Chocks) == Chocks.In;
        Safe(held, "nothing holds the car");
        if (before.Get(Car.Position) == CarPosition.Stands && after.Get(Car.Position) == CarPosition.Ground)
        {
            Safe(!Open(after) && !Loose(after), "lowered on an open or loose brake");
            Safe(after.Get(Car.Pedal) == Pedal.Proved && after.Get(Car.Gear) == Gear.Park, "lowered with no pedal or out of P");
            Safe(after.Get(Car.Cable) != CableRun.Slack, "lowered with a slack cable");
        }

        if (after.Get(Car.TestDrive) == Done.Yes && before.Get(Car.TestDrive) == Done.No)
            Safe(after.Get(Car.Pedal) == Pedal.Proved && Core.Sides.Both.All(s => after.Get(Corner.Nuts, s) == Bolts.Torqued && after.Get(Corner.Wheel, s) == Wheel.On), "driven on an unproved pedal or loose wheels");

        // Hands and actuators.
        var pedal = before.Get(Car.Pedal) != Pedal.Proved && after.Get(Car.Pedal) == Pedal.Proved;
        var pedalMoves = pedal || step.StepId is "bleed" or "leaks-looked";
        var applied = before.Get(Car.Brake) != ParkingBrake.Applied && after.Get(Car.Brake) == ParkingBrake.Applied;
        var closed = before.Get(Car.Closing) != after.Get(Car.Closing) && after.Get(Car.Closing) != Closing.Open;
        if ((applied || closed) && (motor || cable)) Safe(!Open(after), "the parking mechanism closes into a gap");
        if (closed) Safe(after.Get(Car.Pedal) == Pedal.Proved && !Loose(after), "closed before the pedal is firm and both sides tight");
        foreach (var side in Core.Sides.Both)
        {
            if (before.Get(Corner.Caliper, side) == Caliper.On && after.Get(Corner.Caliper, side) == Caliper.Hung && (motor || cable))
            {
                Safe(after.Get(Car.Brake) != ParkingBrake.Applied, "a caliper comes off an applied brake");
                if (motor)
                {
                    Safe(after.Get(Car.AutoApply) == AutoApply.Inhibited && after.Get(Car.Ignition) == Ignition.Off && after.Get(Car.Key) == Key.Away, "a caliper comes off a car that can wake");
                    Safe(after.Get(Car.Tag) == Done.Yes || after.Get(Corner.Actuator, side) is Actuator.Unplugged or Actuator.Off, "a caliper comes off with a live, untagged switch");
                }
            }

            if (before.Get(Corner.Piston, side) == Piston.Out && after.Get(Corner.Piston, side) == Piston.Home && after.Get(Corner.CaliperPart, side) == before.Get(Corner.CaliperPart, side))
            {
                if (motor) Safe(before.Get(Corner.Spindle, side) == Spindle.Back, "pushed onto a spindle");
                if (cable) Safe(before.Get(Car.Cable) == CableRun.Slack && before.Get(Corner.Lever, side) == Lever.OnStop, "wound against a loaded lever");
                Safe(before.Get(Corner.Room, side) == Room.Enough || setup.Rules.FluidRoom == FluidRoomRule.OpenBleeder, "retracted with no room for the fluid");
                Safe(before.Get(Corner.Method, side) == MethodState.Known, "retracted by a guess");
                Safe(before.Get(Car.NewParts) == Done.Yes, "retracted for parts no one compared");
            }

            if (before.Get(Corner.Actuator, side) == Actuator.Plugged && after.Get(Corner.Actuator, side) == Actuator.Unplugged)
                Safe(before.Get(Car.Sleep) == CarSleep.Asleep && before.Get(Car.Ignition) == Ignition.Off && (before.Get(Car.Brake) == ParkingBrake.ProvedReleased || (before.Get(Car.Brake) == ParkingBrake.Service && setup.InService)), "unplugged from a live car");
            if (before.Get(Corner.Pads, side) != PadState.New && after.Get(Corner.Pads, side) == PadState.New)
            {
                Safe(Core.Sides.Both.All(s => after.Get(Corner.Judged, s) == Done.Yes), "a new part goes in before both sides are judged");
                if (setup.Rotors) Safe(after.Get(Corner.Rotor, side) == Rotor.New && after.Get(Corner.RotorClean, side) == Done.Yes, "pads meet an old or oily rotor");
            }

            // Shoes in the hat.
            if (before.Get(Corner.Rotor, side) != Rotor.Off && after.Get(Corner.Rotor, side) == Rotor.Off && setup.IsHat)
                Safe(before.Get(Corner.Shoes, side) is ShoesState.BackedOff or ShoesState.NewLoose && before.Get(Car.Cable) is CableRun.Slack or CableRun.None && before.Get(Car.Brake) != ParkingBrake.Applied, "the hat drags the shoes off their pins");
            if (before.Get(Corner.Rotor, side) == Rotor.Off && after.Get(Corner.Rotor, side) != Rotor.Off)
                Safe(after.Get(Corner.HubClean, side) == Done.Yes && (!setup.ShoesNew || after.Get(Corner.Shoes, side) == ShoesState.NewLoose), "a rotor on a dirty hub, or over old shoes that are to be renewed");
            if (after.Get(Corner.Shoes, side) is ShoesState.Set or ShoesState.NewSet && before.Get(Corner.Shoes, side) != after.Get(Corner.Shoes, side))
                Safe(after.Get(Corner.Rotor, side) != Rotor.Off && after.Get(Corner.Caliper, side) != Caliper.On && after.Get(Car.Cable) is CableRun.Slack or CableRun.None, "shoes set against nothing, a dragging pad or a tight cable");
            if (applied && setup.HatOpen) Safe(after.Get(Corner.Shoes, side) is ShoesState.Set or ShoesState.NewSet && after.Get(Corner.Rotor, side) != Rotor.Off, "the brake applied to loose shoes");
            if (before.Get(Corner.Shoes, side) == ShoesState.Off && after.Get(Corner.Shoes, side) == ShoesState.NewLoose)
                Safe(Core.Sides.Both.All(s => after.Get(Corner.ShoesJudged, s) == Done.Yes), "new shoes before both sides are judged");
            if (before.Get(Corner.TurnsFree, side) == Done.No && after.Get(Corner.TurnsFree, side) == Done.Yes && !setup.IsPlain) Safe(after.Get(Car.Brake) != ParkingBrake.Applied, "a wheel turned by hand against the brake");

            // A new caliper.
            if (before.Get(Corner.Hose, side) != HoseState.Off && after.Get(Corner.Hose, side) == HoseState.Off)
                Safe(before.Get(Car.NewParts) == Done.Yes && after.Get(Car.Hydraulics) == HydraulicsState.Open, "a hose opened with no new caliper in hand, or no one knows it was opened");
            if (pedalMoves) Safe(after.Get(Corner.Hose, side) is HoseState.On or HoseState.Torqued, "the pedal pressed on an open or loose hose");
            if (before.Get(Corner.Caliper, side) == Caliper.Hung && after.Get(Corner.Caliper, side) == Caliper.On)
                Safe(after.Get(Corner.BracketBolts, side) is Bolts.Tight or Bolts.Torqued || setup.IsFixed, "a caliper covers loose bracket bolts");
            if (before.Get(Corner.RotorScrews, side) == Bolts.Tight && after.Get(Corner.RotorScrews, side) == Bolts.Cracked && step.StepId == "screws-cracked-brake")
                Safe(before.Get(Car.Brake) == ParkingBrake.Applied && before.Get(Corner.Caliper, side) == Caliper.On, "the hub spins under the screwdriver");
        }

        if (before.Get(Car.Ignition) == Ignition.Off && after.Get(Car.Ignition) == Ignition.On)
            Safe(!Open(after) && Core.Sides.Both.All(s => after.Get(Corner.Actuator, s) is Actuator.None or Actuator.Plugged), "ignition on with a plug off or a caliper hung");
        if (pedalMoves) Safe(!Open(after) && Core.Sides.Both.All(s => after.Get(Corner.SlidePins, s) is Bolts.Tight or Bolts.Torqued or Bolts.None), "pedal pressed on an open brake");
        if (pedal) Safe(after.Get(Car.Hydraulics) is HydraulicsState.Closed or HydraulicsState.Bled, "a pedal counts as firm on air");
    }
}
