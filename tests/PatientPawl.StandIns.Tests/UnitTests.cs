using PatientPawl.Core.Electric.Link;
using PatientPawl.StandIns.Car;

namespace PatientPawl.StandIns.Tests;

/// <summary>The control unit: what it does, when it refuses, what it remembers. Its rules are ours.</summary>
public class UnitTests
{
    private static readonly CornerMechanics Together = new(true, 2.0e-3, null, true);
    private static readonly CornerMechanics Opened = new(false, 2.0e-3, 1e-3, true);

    private static StandInCar Run(StandInCar car, Routine routine, double seconds = 30)
    {
        car.Start(routine).ShouldBeNull();
        car.Advance(TimeSpan.FromSeconds(seconds));
        return car;
    }

    private static StandInCar InService(CarVariant variant = CarVariant.MotorPush)
    {
        var car = new StandInCar(variant);
        car.Charge(true);
        return Run(car, Routine.ServiceIn);
    }

    private static void Both(StandInCar car, CornerMechanics mechanics)
    {
        car.Put(0, mechanics);
        car.Put(1, mechanics);
    }

    [Theory]
    [InlineData(CarVariant.MotorPush)]
    [InlineData(CarVariant.MotorTurn)]
    [InlineData(CarVariant.PullerCaliper)]
    [InlineData(CarVariant.PullerHat)]
    [InlineData(CarVariant.MotorPlate)]
    public void Into_service_out_of_it_cycled_and_clear_of_codes(CarVariant variant)
    {
        var car = InService(variant);
        (car.Unit.State, car.Unit.Status).ShouldBe((UnitState.Service, RoutineStatus.Done));
        car.Drives.ShouldAllBe(d => Math.Abs(d.Nut) < 0.3e-3);
        Both(car, Together);
        Run(car, Routine.ServiceOut).Unit.State.ShouldBe(UnitState.Released);
        for (var k = 0; k < 3; k++)
        {
            Run(car, Routine.Apply).Unit.State.ShouldBe(UnitState.Applied);
            car.Drives.ShouldAllBe(d => d.Force > 2000);
            Run(car, Routine.Release).Unit.State.ShouldBe(UnitState.Released);
            car.Drives.ShouldAllBe(d => d.Force == 0);
        }

        car.Unit.Stored.ShouldBeEmpty();
    }

    [Fact]
    public void Only_the_first_close_after_service_is_long()
    {
        var car = InService();
        Both(car, Together);
        Run(car, Routine.ServiceOut);
        var first = car.Samples.Count;
        Run(car, Routine.Apply);
        car.Samples.Count.ShouldBeLessThan(first * 2 / 3);
    }

    [Fact]
    public void Neither_ignition_off_nor_sleep_nor_a_door_leaves_service()
    {
        var car = InService();
        car.Ignite(false);
        car.Advance(TimeSpan.FromMinutes(6));
        car.Asleep.ShouldBeTrue();
        car.Set(CarFault.DoorOpened, true);
        car.Advance(TimeSpan.FromSeconds(30));
        (car.Asleep, car.Unit.State).ShouldBe((false, UnitState.Service));
    }

    [Fact]
    public void A_released_brake_applies_by_itself_at_ignition_off_unless_that_is_switched_off()
    {
        foreach (var auto in new[] { true, false })
        {
            var car = new StandInCar { AutoApply = auto };
            car.Ignite(false);
            car.Advance(TimeSpan.FromSeconds(10));
            car.Unit.State.ShouldBe(auto ? UnitState.Applied : UnitState.Released);
        }
    }

    [Fact]
    public void It_refuses_what_it_must_and_moves_nothing()
    {
        void Refuses(Action<StandInCar> first, Routine routine, Refusal why)
        {
            var car = new StandInCar();
            first(car);
            car.Advance(TimeSpan.FromSeconds(1));
            var nuts = car.Drives.Select(d => d.Nut).ToArray();
            car.Start(routine).ShouldBe(why);
            car.Advance(TimeSpan.FromSeconds(5));
            car.Drives.Select(d => d.Nut).ShouldBe(nuts);
        }

        Refuses(c => c.Set(CarFault.WeakBattery, true), Routine.ServiceIn, Refusal.VoltsTooLow);
        Refuses(c => c.KilometresPerHour = 4, Routine.ServiceIn, Refusal.SpeedTooHigh);
        Refuses(c => { c.AutoApply = false; c.Ignite(false); }, Routine.Apply, Refusal.ConditionsNotCorrect);
        Refuses(c => c.Set(CarFault.UnpluggedRight, true), Routine.ServiceIn, Refusal.FailurePrevents);
        Refuses(_ => { }, Routine.ServiceOut, Refusal.ConditionsNotCorrect);
        InService().Start(Routine.Apply).ShouldBe(Refusal.ConditionsNotCorrect);
        new StandInCar().Stop().ShouldBe(Refusal.Sequence);
    }

    [Fact]
    public void A_weak_battery_refuses_and_a_charger_lets_it_go_on()
    {
        var car = new StandInCar();
        car.Set(CarFault.WeakBattery, true);
        car.Advance(TimeSpan.FromSeconds(1));
        car.Start(Routine.ServiceIn).ShouldBe(Refusal.VoltsTooLow);
        car.Charge(true);
        car.Advance(TimeSpan.FromSeconds(1));
        Run(car, Routine.ServiceIn).Unit.State.ShouldBe(UnitState.Service);
    }

    [Fact]
    public void A_cut_off_without_motion_is_seized_and_never_applied()
    {
        var car = new StandInCar();
        car.Set(CarFault.Seized, true);
        Run(car, Routine.Apply);
        (car.Unit.State, car.Unit.Status).ShouldBe((UnitState.Fault, RoutineStatus.Failed));
        car.Unit.Ends.ShouldBe([SideEnd.NoMotion, SideEnd.Clamped]);
        car.Unit.Stored.ShouldContain(TroubleCodes.Seized[0].Number);
    }

    [Fact]
    public void Closing_with_nothing_between_runs_to_the_end_of_travel_and_stores_a_code()
    {
        var car = InService();
        car.Put(0, Together);
        car.Put(1, Opened);
        Run(car, Routine.ServiceOut);
        car.Unit.Ends.ShouldBe([SideEnd.Clamped, SideEnd.TravelLimit]);
        (car.Unit.State, car.Unit.Stored.Single()).ShouldBe((UnitState.Fault, TroubleCodes.NoClamp[1].Number));
    }

    [Fact]
    public void An_apply_of_what_is_applied_moves_nothing()
    {
        var car = Run(new StandInCar(), Routine.Apply);
        var nut = car.Drives[0].Nut;
        Run(car, Routine.Apply);
        car.Unit.Ends.ShouldAllBe(e => e == SideEnd.Already);
        car.Drives[0].Nut.ShouldBe(nut);
    }

    [Fact]
    public void Service_that_fails_on_one_side_holds_the_other()
    {
        var car = new StandInCar();
        car.Set(CarFault.ServiceFailsRight, true);
        Run(car, Routine.ServiceIn);
        (car.Unit.State, car.Unit.Status).ShouldBe((UnitState.Service, RoutineStatus.Failed));
        car.Unit.Ends.ShouldBe([SideEnd.AtBackStop, SideEnd.OutOfTime]);
        car.Drives[1].Nut.ShouldBeGreaterThan(1e-3);
        car.Unit.Stored.ShouldContain(TroubleCodes.NoEnd.Number);
    }

    [Fact]
    public void Stopped_in_the_middle_it_knows_nothing_and_can_be_driven_on()
    {
        var car = new StandInCar();
        car.Start(Routine.ServiceIn).ShouldBeNull();
        car.Advance(TimeSpan.FromSeconds(1));
        car.Stop().ShouldBeNull();
        (car.Unit.State, car.Unit.Status).ShouldBe((UnitState.Fault, RoutineStatus.Stopped));
        var nut = car.Drives[0].Nut;
        car.Advance(TimeSpan.FromSeconds(5));
        car.Drives[0].Nut.ShouldBe(nut, 0.2e-3);
        Run(car, Routine.ServiceIn).Unit.State.ShouldBe(UnitState.Service);
    }

    [Fact]
    public void A_code_whose_cause_stays_comes_back_at_the_next_cycle_and_one_that_was_mended_does_not()
    {
        var car = new StandInCar();
        car.Set(CarFault.CodeStays, true);
        car.ClearCodes();
        car.Unit.Stored.ShouldBeEmpty();
        Run(car, Routine.Apply);
        car.Unit.Stored.ShouldBe([TroubleCodes.Lost.Number]);
        car.Set(CarFault.CodeStays, false);
        car.ClearCodes();
        Run(car, Routine.Release);
        car.Unit.Stored.ShouldBeEmpty();
    }

    [Fact]
    public void A_slow_side_is_told_and_a_hot_disc_is_clamped_again()
    {
        var slow = InService();
        slow.Set(CarFault.OneSlow, true);
        Both(slow, Together with { ContactMetres = 6e-3 });
        Run(slow, Routine.ServiceOut).Unit.Stored.ShouldBe([TroubleCodes.Differ.Number]);

        var hot = Run(new StandInCar(), Routine.Apply);
        hot.Set(CarFault.ClampsAgain, true);
        var nut = hot.Drives[0].Nut;
        hot.Advance(TimeSpan.FromMinutes(5));
        (hot.Unit.State, hot.Drives[0].Nut > nut).ShouldBe((UnitState.Applied, true));
    }

    [Fact]
    public void A_piston_does_not_go_home_over_a_spindle_that_came_out_again_until_it_is_driven_back()
    {
        var car = InService();
        car.Set(CarFault.OnTheSpindle, true);
        Both(car, Opened);
        car.Drives.Select(d => d.Piston).ShouldBe([4e-3, 1e-3]);
        car.Unit.State.ShouldBe(UnitState.Service, "The unit does not know.");
        car.Leave(UnitState.Released);
        Run(car, Routine.ServiceIn);
        Both(car, Opened);
        car.Drives.Select(d => d.Piston).ShouldBe([1e-3, 1e-3]);
    }

    [Fact]
    public void Two_cars_with_one_seed_are_alike_to_the_last_digit()
    {
        StandInCar Cycle() => Run(Run(new(seed: 7), Routine.Apply), Routine.Release);
        Cycle().Samples.ShouldBe(Cycle().Samples);
    }
}
