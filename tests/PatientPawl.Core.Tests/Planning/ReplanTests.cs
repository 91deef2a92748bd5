using PatientPawl.Core.Identification;
using PatientPawl.Core.Planning;

namespace PatientPawl.Core.Tests.Planning;

/// <summary>Setups that become known while a job runs.</summary>
public class ReplanTests
{
    [Fact]
    public void What_becomes_known_later_takes_its_place_and_what_was_done_stays()
    {
        var unknown = PlanSetup.For(null, JobScope.Pads);
        var state = unknown.Start().With(Car.Chocks, Chocks.In).With(Corner.Wheel, Side.Left, Wheel.Off);
        var motor = PlanSetup.For(Architecture.MotorPush, JobScope.Pads, ServiceRoute.ScanTool);
        var carried = motor.Reveal(state, unknown);
        carried.Get(Car.Chocks).ShouldBe(Chocks.In);
        carried.Get(Corner.Wheel, Side.Left).ShouldBe(Wheel.Off);
        carried.Get(Car.AutoApply).ShouldBe(AutoApply.Active);
        carried.Get(Corner.Spindle, Side.Right).ShouldBe(Spindle.Out);
        carried.Get(Car.Closing).ShouldBe(Closing.AsItCame);
        // And back: nothing that the work did not change is left behind.
        unknown.Reveal(carried, motor).ShouldBe(state);
    }

    [Fact]
    public void Corners_of_different_kinds_are_not_sequenced_by_guess()
    {
        var setup = PlanSetup.For(Architecture.CableScrew, JobScope.Pads) with { Right = new(Architecture.MotorPush, false) };
        setup.NotCovered.ShouldNotBeNull();
        Planner.Make(setup, setup.Start()).Steps.ShouldBeEmpty();
    }

    [Fact]
    public void States_with_equal_facts_are_equal_and_others_are_not()
    {
        var a = PlanSetup.For(Architecture.CableScrew, JobScope.Pads).Start();
        var b = a.With(Car.Chocks, Chocks.In);
        b.ShouldNotBe(a);
        b.With(Car.Chocks, Chocks.Out).ShouldBe(a);
        b.With(Car.Chocks, Chocks.Out).GetHashCode().ShouldBe(a.GetHashCode());
        ReferenceEquals(a.With(Car.Chocks, Chocks.Out), a).ShouldBeTrue("setting what is already so makes nothing new");
        Corner.Wheel.Is(Wheel.Off).Wanted.ShouldBe("off");
        Car.Brake.Is(ParkingBrake.Service, ParkingBrake.ProvedReleased).Wanted.ShouldBe("proved released or in service");
    }
}
