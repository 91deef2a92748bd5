using PatientPawl.Core.Identification;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Tests.Jobs;
using PatientPawl.Core.Torque;
using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Tests.Torque;

/// <summary>Every fastener of a job on one card, and the order round a circle.</summary>
public class TorqueCardTests
{
    [Theory]
    // Common practice, no source.
    [InlineData(1, "1")]
    [InlineData(2, "1 2")]
    [InlineData(3, "1 2 3")]
    [InlineData(4, "1 3 2 4")]
    [InlineData(5, "1 3 5 2 4")]
    [InlineData(6, "1 4 2 5 3 6")]
    [InlineData(8, "1 5 3 7 2 6 4 8")]
    public void Star_order(int bolts, string order) => string.Join(' ', TighteningOrder.Star(bolts)).ShouldBe(order);

    [Fact]
    public void Every_star_takes_each_bolt_once_and_never_two_neighbours_where_it_can_be_helped()
    {
        for (var n = 1; n <= 10; n++)
        {
            var order = TighteningOrder.Star(n);
            order.Order().ShouldBe(Enumerable.Range(1, n));
            if (n < 5) continue;
            for (var i = 1; i < n; i++) ((order[i] - order[i - 1] + n) % n).ShouldNotBeOneOf(1, n - 1);
        }

        Should.Throw<InputException>(() => TighteningOrder.Star(11)).Errors.Single().Field.ShouldBe("bolts");
        Should.Throw<InputException>(() => TighteningOrder.Star(0));
    }

    [Fact]
    public void The_card_has_the_fasteners_of_the_plan_in_its_order_each_with_the_smallest_wrench_that_serves()
    {
        var setup = PlanSetup.For(Architecture.CableScrew, JobScope.PadsAndRotors);
        var steps = Planner.Make(setup, setup.Start()).Steps;
        Wrench[] wrenches = [Bench.Wrench(200), Bench.Wrench(60) with { Id = "W60" }, Bench.Wrench(20) with { Id = "W20" }, Bench.Wrench(40) with { Id = "late", CalibratedUntil = new(2020, 1, 1) }];
        var card = TorqueCards.Make(setup, Bench.Sheet(), steps, wrenches, new(2026, 11, 25));
        card.Lines.Select(l => l.Line.Role).ShouldBe([FastenerRole.RotorScrew, FastenerRole.Bracket, FastenerRole.SlidePin, FastenerRole.Wheel]);
        card.Lines.Select(l => l.WrenchId).ShouldBe(["W20", "W", "W60", "W"]);
        var wheel = card.Lines[^1];
        wheel.Line.Order.ShouldBe([1, 3, 2, 4]);
        wheel.SeatAt!.Value.NewtonMeters.ShouldBe(55);
        card.Lines[0].SeatAt.ShouldBeNull();
        card.Lacks.ShouldBeEmpty();
        card.LeadSigns.ShouldBeFalse();
    }

    [Fact]
    public void A_bolt_tightened_by_an_angle_is_new_every_time_unless_the_sheet_allows_it_twice()
    {
        var line = Bench.Sheet().Line(FastenerRole.Bracket)!;
        line.RenewedEveryTime.ShouldBeFalse();
        var angled = line with { ThenAngle = UnitsNet.Angle.FromDegrees(90) };
        angled.RenewedEveryTime.ShouldBeTrue();
        (angled with { ReuseAllowed = true }).RenewedEveryTime.ShouldBeFalse();
        var sheet = Bench.Sheet() with { Torques = [.. Bench.Sheet().Torques.Select(t => t.Role == FastenerRole.Bracket ? angled : t)] };
        PlanSetup.For(Architecture.CableScrew, JobScope.PadsAndRotors).WithSheet(sheet).NeedsNewBolts.ShouldBeTrue();
        var impossible = sheet with { Torques = [line with { ThenAngle = UnitsNet.Angle.FromDegrees(400) }] };
        Should.Throw<InputException>(impossible.Checked).Errors.Single().Field.ShouldBe("torques.Bracket.thenAngleDeg");
    }

    [Fact]
    public void What_the_sheet_or_the_tool_board_lacks_is_said()
    {
        var setup = PlanSetup.For(Architecture.CableScrew, JobScope.PadsAndRotors) with { Rules = HouseRules.Default with { SignOff = SignOffRule.LeadAlso, Studs = StudsRule.Lubricated } };
        var card = TorqueCards.Make(setup, Bench.Sheet(bracketTorque: false), Planner.Make(setup, setup.Start()).Steps, [], new(2026, 11, 25));
        card.Lacks.ShouldHaveSingleItem().ShouldContain("Bracket bolts");
        card.Lines.ShouldAllBe(l => l.WrenchId == null && l.Questions[0].StartsWith("No wrench"));
        card.LeadSigns.ShouldBeTrue();
        card.Studs.ShouldContain("overloads");
    }
}
