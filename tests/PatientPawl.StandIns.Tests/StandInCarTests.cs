using PatientPawl.StandIns.Car;

namespace PatientPawl.StandIns.Tests;

/// <summary>
/// The stand-in car against the closed forms of a DC motor behind a self-locking screw (any text on electric machines and on power screws; from
/// memory): free speed (V - R Tf/Kt)/Ke, stall V/R, clamp (Kt I - Tf) eta/r, the exponential after contact, the dead band of dry friction.
/// </summary>
public class StandInCarTests
{
    private static readonly DriveFigures Usual = new();
    private static double R => 0.6;

    private static Drive Ready(DriveFigures? figures = null, double contact = 1e-3) => new(figures ?? Usual) { Contact = contact, Piston = contact, Fed = 1 };

    /// <summary>Feeds one motor from 12.6 V until something holds, and says how long it took.</summary>
    private static double Run(Drive drive, Func<Drive, double, bool> until, double dt = 1e-4, double internalOhm = 0.03, double open = 12.6, double most = 30)
    {
        Span<Drive> one = [drive];
        for (var t = 0.0; t < most; t += dt)
        {
            if (until(drive, t)) return t;
            Circuit.Step(one, open, internalOhm, 0, dt);
        }

        return most;
    }

    [Fact]
    public void It_runs_free_at_the_speed_and_current_of_the_closed_form()
    {
        var drive = Ready(contact: 1);
        Run(drive, (_, t) => t > 1);
        drive.Speed.ShouldBe((12.6 - R * Usual.FrictionNm / Usual.TorqueConstant) / Usual.TorqueConstant, 0.5);
        drive.Amps.ShouldBe(Usual.FrictionNm / Usual.TorqueConstant, 0.002);
        (drive.NutSpeed * 1e3).ShouldBe(1.83, 0.005);
    }

    [Fact]
    public void A_stalled_motor_draws_volts_over_ohms()
    {
        var drive = Ready(Usual with { FrictionNm = 10 });
        Run(drive, (_, t) => t > 0.1);
        drive.Amps.ShouldBe(12.6 / R, 0.01);
        drive.Nut.ShouldBe(0);
    }

    [Fact]
    public void A_millimetre_is_closed_and_clamped_in_the_time_and_to_the_force_reckoned_beforehand()
    {
        var drive = Ready();
        var peak = 0.0;
        var contact = Run(drive, (d, _) =>
        {
            peak = Math.Max(peak, d.Amps);
            return d.Nut >= d.Contact;
        });
        contact.ShouldBe(0.57, 0.01);
        peak.ShouldBe(19.7, 0.3);
        var total = contact + Run(drive, (d, _) => d.Amps >= 14);
        total.ShouldBe(1.47, 0.02);
        (drive.Force / 1e3).ShouldBe(23.2, 0.15);
    }

    [Fact]
    public void The_clamp_at_cut_off_falls_to_the_closed_form_as_the_inertia_goes()
    {
        var exact = (Usual.TorqueConstant * 14 - Usual.FrictionNm) * Usual.Efficiency / Usual.MetresPerRadian;
        (exact / 1e3).ShouldBe(22.9, 0.05);
        var before = double.PositiveInfinity;
        foreach (var inertia in new[] { 5e-6, 2e-6, 5e-7 })
        {
            var drive = Ready(Usual with { Inertia = inertia });
            Run(drive, (d, t) => t > 0.12 && d.Amps >= 14, 1e-5);
            drive.Force.ShouldBeInRange(exact, before);
            before = drive.Force;
        }

        before.ShouldBe(exact, exact * 0.003);
    }

    [Fact]
    public void After_contact_the_current_rises_by_the_exponential_of_the_closed_form()
    {
        var light = Usual with { Inertia = 5e-8 };
        var r = light.MetresPerRadian;
        var tau = light.TorqueConstant * light.TorqueConstant * light.Efficiency / (light.Stiffness * r * r * R);
        tau.ShouldBe(0.897, 0.002);
        var drive = Ready(light);
        Run(drive, (d, _) => d.Nut >= d.Contact, 1e-5);
        var free = light.FrictionNm / light.TorqueConstant;
        foreach (var after in new[] { 0.2, 0.3, 0.3 })
        {
            var t = Run(drive, (_, s) => s >= after, 1e-5);
            t.ShouldBe(after, 2e-5);
        }

        drive.Amps.ShouldBe(12.6 / R - (12.6 / R - free) * Math.Exp(-0.8 / tau), 0.05);
    }

    [Fact]
    public void It_holds_with_no_current_and_lets_go_only_beyond_the_dead_band()
    {
        var drive = Ready();
        Run(drive, (d, t) => t > 0.12 && d.Amps >= 14);
        drive.Fed = 0;
        Run(drive, (_, t) => t > 0.05);
        var held = drive.Force;
        Run(drive, (_, t) => t > 5);
        drive.Force.ShouldBe(held);
        var threshold = (Usual.FrictionNm + held * Usual.MetresPerRadian * (1 / Usual.Efficiency - 2)) / Usual.TorqueConstant;
        threshold.ShouldBe(6.75, 0.2);
        drive.Fed = -1;
        Run(drive, (d, t) => t > 0.2 && d.Speed == 0, open: R * threshold * 0.98, most: 1).ShouldBeLessThan(1, "It has not moved.");
        drive.Force.ShouldBe(held);
        Run(drive, (d, _) => d.Speed < 0, open: R * threshold * 1.02, most: 1).ShouldBeLessThan(1);
    }

    [Fact]
    public void A_dry_spindle_and_a_collapsed_battery_end_as_reckoned_beforehand()
    {
        var dry = Ready(Usual with { FrictionNm = 0.060 });
        Run(dry, (d, _) => d.Nut >= d.Contact);
        dry.Amps.ShouldBe(5.0, 0.05);
        Run(dry, (d, t) => d.Amps >= 14);
        (dry.Force / 1e3).ShouldBe(17.3, 0.3);

        var weak = Ready();
        var still = 0.0;
        var end = Run(weak, (d, _) => (still = Math.Abs(d.NutSpeed) < 0.02e-3 ? still + 1e-4 : 0) >= 0.3, internalOhm: 0.30, open: 10.9);
        end.ShouldBe(3.6, 0.15);
        weak.Amps.ShouldBe(12.4, 0.2);
        (weak.Force / 1e3).ShouldBe(20.0, 0.4);
    }

    [Fact]
    public void What_the_battery_gives_is_what_the_parts_take()
    {
        const double Dt = 2e-6;
        var drive = Ready();
        double given = 0, taken = 0, friction = 0;
        Span<Drive> one = [drive];
        for (var t = 0.0; t < 1.4; t += Dt)
        {
            var (i, w, x, force) = (drive.Amps, drive.Speed, drive.Nut, drive.Force);
            var volts = Circuit.Step(one, 12.6, 0.03, 0, Dt);
            var (current, speed) = ((i + drive.Amps) / 2, (w + drive.Speed) / 2);
            given += volts * current * Dt;
            taken += current * current * (Usual.ResistanceOhm + Usual.HarnessOhm) * Dt;
            friction += Usual.FrictionNm * speed * Dt + (force + drive.Force) / 2 / Usual.Efficiency * (drive.Nut - x);
        }

        var stored = Usual.InductanceHenry * drive.Amps * drive.Amps / 2 + Usual.Inertia * drive.Speed * drive.Speed / 2;
        (taken + friction + stored).ShouldBe(given, given * 1e-3);
    }

    [Theory]
    [InlineData(0.3e-3)]
    [InlineData(0)]
    public void Half_the_step_changes_the_end_by_less_than_a_thousandth(double inductance)
    {
        var ends = new[] { 1e-4, 5e-5 }.Select(dt =>
        {
            var drive = Ready(Usual with { InductanceHenry = inductance });
            Run(drive, (d, t) => t > 0.12 && d.Amps >= 14, dt);
            return drive.Force;
        }).ToArray();
        ends[1].ShouldBe(ends[0], ends[0] * 1e-3);
        var drive = Ready(Usual with { InductanceHenry = 0 });
        Run(drive, (d, t) => t > 0.12 && d.Amps >= 14);
        drive.Force.ShouldBe(ends[0], ends[0] * 1e-3, "Inductance does not change the end.");
    }

    [Fact]
    public void The_motors_travel_to_contact_is_the_same_whether_the_pedal_was_pumped_or_not_and_the_drag_shows_as_a_step()
    {
        double Contact(double piston, out double before)
        {
            var drive = new Drive(Usual) { Contact = 2e-3, Piston = piston, Fed = 1 };
            Run(drive, (d, _) => d.Nut >= 1.9e-3);
            before = drive.Amps;
            Run(drive, (d, _) => d.Nut >= d.Contact);
            return drive.Nut;
        }

        Contact(2e-3, out var pumped).ShouldBe(Contact(1e-3, out var dragged), 1e-6);
        (dragged - pumped).ShouldBe(Usual.DragNewton * Usual.MetresPerRadian / Usual.Efficiency / Usual.TorqueConstant, 0.005);
    }

    [Fact]
    public void The_ignition_takes_the_battery_down_in_the_hours_reckoned_beforehand()
    {
        var car = new StandInCar();
        car.Battery.Share = 0.70;
        var hours = 0.0;
        while (car.Volts >= 12.0 || hours == 0)
        {
            car.Advance(TimeSpan.FromSeconds(18));
            hours += 18.0 / 3600;
        }

        hours.ShouldBe(1.27, 0.02);
        while (car.Battery.OpenVolts >= 12.0)
        {
            car.Advance(TimeSpan.FromSeconds(18));
            hours += 18.0 / 3600;
        }

        hours.ShouldBe(2.8, 0.03);
    }
}
