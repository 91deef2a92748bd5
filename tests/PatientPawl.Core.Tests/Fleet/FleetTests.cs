using PatientPawl.Core.Fleet;
using PatientPawl.Core.Hydraulics;
using PatientPawl.Core.Pads;
using PatientPawl.Core.Vehicles;
using UnitsNet;

namespace PatientPawl.Core.Tests.Fleet;

public class FleetTests
{
    private static readonly DateOnly Today = new(2026, 6, 1);
    private static OdometerVisit Visit(int daysAgo, int km) => new(Today.AddDays(-daysAgo), km);
    private static WearPoint Lining(int km, double mm) => new(km, Length.FromMillimeters(mm));
    private static FleetCard Card(IReadOnlyList<OdometerVisit> visits, params WearPoint[] wear) =>
        new(new("GNT 118", "Norrin", "Coble", "meals van", null), visits, wear, Length.FromMillimeters(2), null);

    [Fact]
    public void One_odometer_typed_wrongly_does_not_decide_how_far_a_vehicle_is_driven()
    {
        OdometerVisit[] visits = [Visit(400, 10_000), Visit(300, 15_000), Visit(200, 200_000), Visit(150, 22_500), Visit(50, 27_500)];
        var rate = DrivenRate.Of(visits, Today);
        // 50 km a day between the honest ones; the wrong figure makes one stretch absurd and the one behind it negative.
        rate.KmPerDay.ShouldBe(50, 0.5);
        rate.FromDefault.ShouldBeFalse();
    }

    [Fact]
    public void One_visit_or_two_in_a_week_tell_nothing_and_the_default_is_flagged()
    {
        DrivenRate.Of([Visit(30, 10_000)], Today)
            .ShouldSatisfyAllConditions(r => r.FromDefault.ShouldBeTrue(), r => r.ExpectedKm.ShouldBe(11_200), r =>
            r.Reasons.UsesDefaults.ShouldBeTrue());
        DrivenRate.Of([Visit(5, 10_000), Visit(0, 10_900)], Today).FromDefault.ShouldBeTrue();
        Should.Throw<InputException>(() => DrivenRate.Of([], Today));
    }

    [Fact]
    public void Pads_are_due_on_the_day_the_low_end_of_their_band_is_driven_and_the_chances_grow_with_the_days()
    {
        // 0.1 mm a 1000 km, 100 km a day: 8 mm over 2 mm are 60 000 km, 600 days; it scatters a little.
        OdometerVisit[] visits = [Visit(300, 0), Visit(200, 10_000), Visit(100, 20_000), Visit(10, 29_000)];
        var o = Outlook.Of(Card(visits, Lining(0, 5.0), Lining(10_000, 3.9), Lining(20_000, 3.05), Lining(29_000, 2.12)), Today);
        o.Driven.KmPerDay.ShouldBe(100);
        o.Pads!.LowKm.ShouldNotBeNull();
        o.PadsDue.ShouldBe(visits[^1].On.AddDays((int)Math.Ceiling(o.Pads.LowKm!.Value / 100.0)));
        o.Within30!.Value.ShouldBeGreaterThan(0.5);
        o.Within60!.Value.ShouldBeGreaterThanOrEqualTo(o.Within30.Value);
        o.Within90!.Value.ShouldBeGreaterThanOrEqualTo(o.Within60.Value);
        o.Reminders.ShouldContain(r => r.Kind == ReminderKind.Pads && r.Due == o.PadsDue);
    }

    [Fact]
    public void Wheel_nuts_come_due_by_what_it_drives_and_are_overdue_once_the_window_is_past()
    {
        var job = Guid.NewGuid();
        var card = Card([Visit(100, 10_000), Visit(0, 14_000)]) with { Nuts = new(job, 14_050, 14_080) };
        var nuts = Outlook.Of(card, Today).Reminders.Single();
        (nuts.Kind, nuts.Due, nuts.Overdue).ShouldBe((ReminderKind.WheelNuts, Today.AddDays(2), false));
        Outlook.Of(card, Today.AddDays(2)).Reminders.Single().Overdue.ShouldBeFalse();
        Outlook.Of(card, Today.AddDays(3)).Reminders.Single().Overdue.ShouldBeTrue();
        // Ticked off by the job that had the wheels off: the next one makes another.
        nuts.Id.ShouldContain(job.ToString("N"));
    }

    [Fact]
    public void A_calibration_that_ended_says_that_its_tool_decides_nothing()
    {
        Reminder[] due =
        [
            Reminder.OfCalibration(new("vernier", "Vernier caliper", Today.AddDays(-1)), Today),
            Reminder.OfCalibration(new("w1", "Quarter-inch click", Today), Today),
        ];
        due[0].Overdue.ShouldBeTrue();
        due[0].Says.ShouldContain("decides nothing");
        due[1].Overdue.ShouldBeFalse();
    }

    [Fact]
    public void What_stands_is_due_within_ninety_days_the_soonest_first_without_what_was_ticked_off()
    {
        Calibrated Tool(string id, int days) => new(id, id, Today.AddDays(days));
        Calibrated[] tools = [Tool("in-90", 90), Tool("in-91", 91), Tool("past", -400), Tool("ticked", 5)];
        var ticked = Reminder.OfCalibration(tools[3], Today).Id;
        Reminders.Standing([], tools, new HashSet<string> { ticked }, Today).Select(r => r.About).ShouldBe(["past", "in-90"]);
        // Another certificate is another reminder.
        Reminders.Standing([], [Tool("ticked", 6)], new HashSet<string> { ticked }, Today).Count.ShouldBe(1);
    }

    // 1.5 and 3 % are the test pen's usual lines; a year and half a year: common practice, no source.
    [Theory]
    [InlineData(1.4, WaterVerdict.Good, 365, "tested again")]
    [InlineData(1.5, WaterVerdict.PlanChange, 182, "changed by")]
    [InlineData(3.0, WaterVerdict.Change, 0, "changed since")]
    public void Fluid_comes_due_by_the_water_that_was_in_it_and_the_next_test_makes_another(double percent, WaterVerdict water, int days, string says)
    {
        var on = Today.AddDays(-30);
        BrakeFluid.Judge(new(FluidGrade.Dot4, null, percent, null)).Water.ShouldBe(water);
        FleetCard With(DateOnly day) => Card([Visit(30, 10_000)]) with { Fluid = new(day, percent, water) };
        var fluid = Outlook.Of(With(on), Today).Reminders.Single();
        (fluid.Kind, fluid.Due, fluid.Overdue).ShouldBe((ReminderKind.Fluid, on.AddDays(days), days == 0));
        fluid.Says.ShouldContain(says);
        fluid.Says.ShouldContain($"{Figure.Of(percent, 1)} % water");
        Outlook.Of(With(on.AddDays(1)), Today).Reminders.Single().Id.ShouldNotBe(fluid.Id);
    }

    [Fact]
    public void Single_use_fasteners_are_ordered_a_fortnight_before_the_pads_and_a_lamp_waits_for_its_tool()
    {
        var lamp = Guid.NewGuid();
        OdometerVisit[] visits = [Visit(200, 10_000), Visit(100, 20_000)];
        var card = Card(visits, Lining(10_000, 5.0), Lining(15_000, 4.6), Lining(20_000, 4.0)) with
        {
            SingleUse = ["4 slide-pin bolts, number BR 31-08"],
            LampWaits = lamp,
        };
        var o = Outlook.Of(card, Today);
        var order = o.Reminders.Single(r => r.Kind == ReminderKind.SingleUseParts);
        order.Due.ShouldBe(o.PadsDue!.Value.AddDays(-14));
        order.Says.ShouldContain("4 slide-pin bolts, number BR 31-08");
        o.Reminders.Single(r => r.Kind == ReminderKind.WearLamp).ShouldSatisfyAllConditions(r => r.Overdue.ShouldBeTrue(), r => r.Id.ShouldContain(lamp.ToString("N")));
        // With no forecast there is no day to order for.
        Outlook.Of(card with { Wear = [] }, Today).Reminders.ShouldNotContain(r => r.Kind == ReminderKind.SingleUseParts);
    }

    [Fact]
    public void A_vehicle_that_has_been_due_for_more_than_a_year_goes_elsewhere_and_a_tool_does_not()
    {
        FleetCard Nuts(int daysAgo) => Card([Visit(daysAgo, 10_000)]) with { Nuts = new(Guid.NewGuid(), 10_000, 10_030) };
        IReadOnlyList<Reminder> Due(int daysAgo) => Reminders.Standing([Outlook.Of(Nuts(daysAgo), Today)], [new("vernier", "Vernier caliper", Today.AddDays(-daysAgo))], new HashSet<string>(), Today);
        Due(365).Count.ShouldBe(2);
        Due(366).Single().Kind.ShouldBe(ReminderKind.Calibration);
        Reminders.Window(Today).ShouldBe((Today.AddDays(-365), Today.AddDays(90)));
    }

    [Fact]
    public void The_chance_of_being_due_is_right_as_often_as_it_says()
    {
        // Vehicles with a known wear and a gauge that scatters: of those said to be due within 60 days by p, about p are.
        var random = new Random(11);
        var (said, came) = (0.0, 0);
        const int fleet = 4000;
        for (var i = 0; i < fleet; i++)
        {
            double wear = 0.08 + random.NextDouble() * 0.08, scatter = 0.15;
            int[] at = [0, 6_000, 12_000, 18_000, 24_000];
            double Normal() => Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());
            var points = at.Select(km => Lining(km, Math.Round(5.2 - wear * km / 1000 + scatter * Normal(), 2))).ToArray();
            var visits = at.Select((km, n) => Visit((4 - n) * 60, km)).ToArray();
            var o = Outlook.Of(Card(visits, points), Today);
            if (o.Within60 is not { } p) continue;
            said += p;
            if (5.2 - wear * (24 + 6) <= 2) came++;
        }

        (said / fleet).ShouldBe(came / (double)fleet, 0.03);
    }
}
