using PatientPawl.Core.Identification;
using PatientPawl.Core.Planning;

namespace PatientPawl.Core.Tests.Planning;

/// <summary>Where a job can be left, from anywhere in it.</summary>
public class OvernightTests
{
    [Fact]
    public void From_any_point_of_any_job_there_is_a_safe_stop_and_every_step_to_it_is_allowed()
    {
        foreach (var (n, (setup, plan)) in Setups.Planned.Where((_, i) => i % 7 == 3).Index())
        {
            var state = setup.Start();
            foreach (var step in plan.Steps.TakeWhile(s => s.StepId != "handed-over"))
            {
                state = Planner.Apply(setup, state, step, null);
                if ((state.GetHashCode() & 7) != n % 8) continue;
                var stop = Overnight.Shortest(setup, state);
                stop.CannotBeMet.ShouldBeEmpty($"after {step} in {setup}");
                // As it is walked once the job is sent there.
                var toward = setup with { Goal = stop.Kind.Goal() };
                var now = state;
                foreach (var k in stop.Steps)
                {
                    Planner.Why(toward, now, k).Allowed.ShouldBeTrue($"{k} after {step} in {setup}");
                    now = Planner.Apply(toward, now, k, null);
                }

                // Written from what could go wrong in the night, not from the goal's own table.
                if (now.Get(Car.Position) == CarPosition.Ground)
                    Core.Sides.Both.ShouldAllBe(s => now.Get(Corner.Wheel, s) == Wheel.On && now.Get(Corner.Caliper, s) == Caliper.On && now.Get(Corner.Pads, s) != PadState.None, $"lowered on an open brake after {step}");
                if (now.Get(Car.Position) == CarPosition.Ground) Core.Sides.Both.ShouldAllBe(s => now.Get(Corner.Hydraulics, s) == HydraulicsState.Closed);
                now.Get(Car.Ignition).ShouldBe(Ignition.Off);
                stop.Tags.ShouldContain("Key: do not drive");
                if (now.Get(Car.Brake) == ParkingBrake.Service) stop.Tags.ShouldContain(t => t.Contains("switch"));
                Overnight.Shortest(setup, now).Steps.ShouldBeEmpty("the stop itself is a stop");
            }
        }
    }

    [Fact]
    public void A_job_nobody_has_touched_can_be_left_as_it_stands()
    {
        var setup = PlanSetup.For(Architecture.CableScrew, JobScope.Pads);
        var stop = Overnight.Shortest(setup, setup.Start());
        (stop.Kind, stop.Steps.Count).ShouldBe((NightKind.Assembled, 0));
    }

    [Fact]
    public void With_calipers_hung_it_stays_on_its_stands_with_pedal_and_switch_tagged()
    {
        var setup = PlanSetup.For(Architecture.MotorPush, JobScope.Pads, ServiceRoute.ScanTool);
        var state = setup.Start();
        foreach (var step in Planner.Make(setup, state).Steps.TakeWhile(s => s.StepId != "pads-in")) state = Planner.Apply(setup, state, step, null);
        var stop = Overnight.Shortest(setup, state);
        stop.Kind.ShouldBe(NightKind.OnStands);
        stop.Tags.ShouldContain("Brake pedal: do not press");
        stop.OnReturn.ShouldContain(r => r.Contains("spindles"));
        Overnight.To(setup, state, NightKind.Assembled).Minutes.ShouldBeGreaterThan(stop.Minutes);
    }
}
