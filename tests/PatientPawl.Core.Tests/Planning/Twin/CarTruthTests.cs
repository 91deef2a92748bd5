using System.Collections.Concurrent;
using PatientPawl.Core.Electric.Link;
using PatientPawl.Core.Planning;
using PatientPawl.StandIns.Car;
using Xunit.Abstractions;

namespace PatientPawl.Core.Tests.Planning.Twin;

/// <summary>
/// The stand-in car's own motors at the corners of the physical twin: what the plan offers is done by them, and what they would do by
/// themselves is what a person with a hand in a corner would meet.
/// </summary>
public class CarTruthTests(ITestOutputHelper output)
{
    private const Doing Hands = Doing.HandsAtCaliper | Doing.HandsInHat | Doing.HandsAtSpot;

    /// <summary>What each step asks of the unit.</summary>
    private static readonly Dictionary<string, Routine[]> Asked = new(StringComparer.Ordinal)
    {
        ["brake-released"] = [Routine.Release],
        ["service-entered"] = [Routine.ServiceIn],
        ["service-entered-car"] = [Routine.ServiceIn],
        ["service-closed"] = [Routine.ServiceOut],
        ["first-apply"] = [Routine.Apply],
        ["brake-cycled"] = [Routine.Apply, Routine.Release, Routine.Apply],
        ["brake-applied"] = [Routine.Apply],
    };

    [Fact]
    public void What_moves_a_motor_finds_no_hand_in_a_corner_ends_as_the_plan_has_it_and_nothing_moves_by_itself_at_an_open_one()
    {
        var (wrong, routines, hands) = Walked(forgets: false);
        output.WriteLine($"{routines} routines, {hands} steps with a hand in a corner");
        wrong.DistinctBy(w => w.Split(':')[^1]).Take(6).ShouldBeEmpty($"{wrong.Count} in all");
        routines.ShouldBeGreaterThan(100);
        hands.ShouldBeGreaterThan(500);
    }

    [Fact]
    public void A_unit_that_forgot_its_service_position_and_that_it_is_not_to_apply_by_itself_would_clamp_hands() =>
        Walked(forgets: true).Wrong.ShouldContain(w => w.Contains("clamps a hand", StringComparison.Ordinal));

    private static (IReadOnlyCollection<string> Wrong, int Routines, int Hands) Walked(bool forgets)
    {
        ConcurrentBag<string> wrong = [];
        var (routines, hands) = (0, 0);
        var setups = Setups.Spread.Where(s => s is { IsMotor: true, InService: true, InspectOnly: false }).Take(40).ToArray();
        Parallel.For(0, setups.Length, Setups.Processors, n =>
        {
            var walk = new TwinWalk(setups[n], n, n % 3 == 0 ? Surprises.None : Surprises.All)
            {
                AtTheCar = (car, step, done) =>
                {
                    var doing = Acts.Of(step.StepId);
                    if (!done && (doing & Hands) != 0 && step.Side is { } side)
                    {
                        Interlocked.Increment(ref hands);
                        // A released car whose ignition goes off applies by itself, unless that was switched off: a plug in its place obeys.
                        var stands = Stands(car);
                        if (forgets)
                        {
                            stands.AutoApply = true;
                            stands.Leave(UnitState.Released);
                        }

                        if (car.At(side).ActuatorPlugged && !car.Asleep)
                        {
                            stands.Ignite(false);
                            if (stands.Unit.Runs) wrong.Add($"setup {n}: ignition off at {step} clamps a hand");
                        }
                    }

                    if (done || !Asked.TryGetValue(step.StepId, out var asks)) return;
                    if ((doing & Hands) != 0) wrong.Add($"setup {n}: {step} moves a motor with a hand there");
                    var real = Stands(car);
                    foreach (var routine in asks)
                    {
                        Interlocked.Increment(ref routines);
                        if (real.Start(routine) is { } refused)
                        {
                            wrong.Add($"setup {n}: {routine} at {step} is refused: {refused}");
                            return;
                        }

                        for (var k = 0; k < 40 && real.Unit.Runs; k++) real.Advance(TimeSpan.FromSeconds(0.5));
                        var wanted = routine switch
                        {
                            Routine.ServiceIn => UnitState.Service,
                            Routine.Apply => UnitState.Applied,
                            _ => UnitState.Released,
                        };
                        if (real.Unit.State != wanted || real.Unit.Status != RoutineStatus.Done)
                            wrong.Add($"setup {n}: {routine} at {step} ends {real.Unit.Status}, {real.Unit.State}");
                    }
                },
            };
            walk.ToTheEnd();
        });
        return (wrong, routines, hands);
    }

    /// <summary>The stand-in car as the twin's car stands: its corners, its brake, its ignition.</summary>
    private static StandInCar Stands(PhysicalCar car)
    {
        var real = new StandInCar { AutoApply = !car.AutoApplyOff };
        foreach (var (corner, side) in car.Both.Select((c, i) => (c, i)))
            real.Put(side, new(corner is { CaliperOn: true, PadsIn: true, RotorOn: true }, 8e-3, null, corner.ActuatorPlugged));
        real.Leave(car.InService ? UnitState.Service : car.Applied ? UnitState.Applied : UnitState.Released);
        return real;
    }
}
