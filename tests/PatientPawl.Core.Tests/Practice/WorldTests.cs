using PatientPawl.Core.Measuring;
using PatientPawl.Core.Practice;
using PatientPawl.Core.Torque;
using UnitsNet;

namespace PatientPawl.Core.Tests.Practice;

/// <summary>The car that is not there against closed forms and published figures.</summary>
public class WorldTests
{
    [Fact]
    public void What_a_piston_pushes_back_is_its_area_times_its_travel()
    {
        var scenario = ScenarioSet.Find("collapsed-hose")!;
        var player = new Player(scenario, 1, PracticeWay.Guided) { Tells = false };
        player.Until("piston-home", Side.Left);
        var before = player.World.LevelPercent;
        var step = new Core.Planning.StepKey("piston-home", Side.Left);
        var proud = player.World.ProudMm(Side.Left);
        player.Do(s => PracticeRules.Answer(s, step, "push"));
        // Bore 40 mm by the sheet: pi/4 x 40 x 40 mm2 over (proud - 1.5 mm at home), in a band of 95 mL.
        var expected = Math.PI / 4 * 40 * 40 * (proud - 1.5) / 1000 / 95 * 100;
        (player.World.LevelPercent - before).ShouldBe(expected, 1e-9);
        player.World.ProudMm(Side.Left).ShouldBe(1.5, 1e-9);
    }

    [Theory]
    // ISO 898-1, nominal stress areas 36.6 and 88.1 mm2 (coarse M8, fine M12x1.5), tensile 800 and 1040 MPa; T = 0.2 d F. From memory.
    [InlineData(8, 1.25, PropertyClass.C88, 34.0, 46.9)]
    [InlineData(12, 1.5, PropertyClass.C109, 175.5, 219.9)]
    public void A_bolt_stretches_and_breaks_where_its_strength_says(double d, double pitch, PropertyClass of, double stretches,
        double breaks)
    {
        var line = new TorqueLine(FastenerRole.SlidePin, 2, Length.FromMillimeters(d), Length.FromMillimeters(pitch), of, "hex",
            UnitsNet.Torque.FromNewtonMeters(30), null, false, true, false, null);
        var strength = BoltStrength.Of(line)!;
        strength.StretchesAt.ShouldBe(stretches, stretches * 0.01);
        strength.BreaksAt.ShouldBe(breaks, breaks * 0.01);
        BoltStrength.Of(line with { Class = PropertyClass.NotKnown }).ShouldBeNull();
    }

    [Fact]
    public void A_drum_of_190_mm_grows_by_an_eighth_of_a_millimetre_in_60_kelvin() =>
        // 11e-6 per kelvin for cast iron, common tables: 190 x 11e-6 x 60 = 0.125 mm.
        (PracticeGauge.Grown(190, 80) - 190).ShouldBe(0.1254, 1e-4);

    [Fact]
    public void A_crowfoot_gives_more_at_the_bolt_by_the_longer_arm()
    {
        // Torque and adapter: T x (L + E) / L; 60 mm on 400 mm is 15 per cent more (common practice).
        var crowfoot = new NeededCrowfoot(FastenerRole.Bracket, Length.FromMillimeters(60), Length.FromMillimeters(400));
        crowfoot.AtTheBolt(100).ShouldBe(115, 1e-9);
        // And what the engine sets comes back to what the sheet wants, to the step of the scale.
        var line = InventedCars.Sheets[1].Line(FastenerRole.Bracket)!;
        crowfoot.AtTheBolt(PracticeQuestions.Setting(line, crowfoot).OnTheScale.NewtonMeters).ShouldBe(line.Wanted.NewtonMeters, 0.06);
    }

    [Fact]
    public void A_gauge_is_off_by_no_more_than_its_class_allows_beside_its_scatter_and_rounding()
    {
        var scenario = ScenarioSet.All[0];
        var world = PracticeWorld.Of(scenario, [], _ => 0);
        foreach (var instrument in InstrumentCatalogue.Defaults)
        {
            var off = Enumerable.Range(0, 2000).Select(seed =>
                PracticeGauge.Read(scenario, world, seed, Side.Left, ReadingKind.RotorThickness, instrument,
                0) - scenario.Truth.Left.Rotor.Millimeters).ToArray();
            // Rectangular error within the class, normal scatter of a third of the repeatability, half a step of rounding.
            off.Max(Math.Abs).ShouldBeLessThan(instrument.PermissibleError.Millimeters + 2 * (instrument.Repeatability
                ?? instrument.Resolution).Millimeters);
            Math.Abs(off.Average()).ShouldBeLessThan(instrument.PermissibleError.Millimeters * 0.1 + instrument.Resolution.Millimeters / 2);
        }
    }

    [Fact]
    public void A_verdict_on_a_gauge_that_is_not_there_is_right_far_from_its_limit_and_seldom_wrong_near_it()
    {
        const int Runs = 400;
        var scenario = ScenarioSet.All[0];
        var limit = scenario.Sheet.Rotor.MinimumThickness!.Value;
        foreach (var instrument in InstrumentCatalogue.Defaults.Where(i => i.Serves(InstrumentUse.Outside)))
        {
            var u = instrument.StandardUncertainty().Millimeters;
            var (wrongNear, near) = (0, 0);
            for (var seed = 1; seed <= Runs * 3; seed++)
            {
                // From nine doubts on one side of the limit to nine on the other, evenly.
                var times = (seed * 0.6180339887 % 1 - 0.5) * 18;
                var truth = scenario.Truth with { Left = scenario.Truth.Left with { Rotor = limit + Length.FromMillimeters(times * u) } };
                var car = scenario with { Truth = truth };
                var read = Length.FromMillimeters(PracticeGauge.Read(car, PracticeWorld.Of(car, [], _ => 0), seed, Side.Left,
                    ReadingKind.RotorThickness, instrument, 0));
                var said = LimitJudgement.Judge(new(Judged.RotorThickness, Side.Left), read, limit, LimitKind.Minimum, instrument,
                    false).Verdict;
                var wrong = said == (times > 0 ? Verdict.Outside : Verdict.Inside);
                if (Math.Abs(times) > 3.5) wrong.ShouldBeFalse($"{instrument.Name}, {times} u from its limit");
                else (wrongNear, near) = (wrongNear + (wrong ? 1 : 0), near + 1);
                if (Math.Abs(times) > 6) said.ShouldBe(times > 0 ? Verdict.Inside : Verdict.Outside,
                    $"{instrument.Name}, {times} u from its limit");
            }

            // JCGM 106: the guard band leaves a risk of 5 % at most; three standard deviations of a binomial count on top.
            ((double)wrongNear).ShouldBeLessThanOrEqualTo(near * 0.05 + 3 * Math.Sqrt(near * 0.05 * 0.95), instrument.Name);
        }
    }

    [Fact]
    public void Leitners_boxes_wait_1_2_4_8_and_16_days_and_a_wrong_answer_goes_back_to_the_first()
    {
        // Leitner 1972, from memory: what is known waits longer, what is not comes back at once.
        Enumerable.Range(1, LeitnerBoxes.Last).Select(LeitnerBoxes.Days).ShouldBe([1, 2, 4, 8, 16]);
        var day = new DateOnly(2026, 11, 25);
        CardBox? box = null;
        foreach (var wanted in new[] { 2, 3, 4, 5, 5 })
        {
            box = LeitnerBoxes.After("a", box, true, day);
            box.Box.ShouldBe(wanted);
            box.Due.ShouldBe(day.AddDays(LeitnerBoxes.Days(wanted)));
        }

        LeitnerBoxes.After("a", box, false, day).ShouldBe(new CardBox("a", 1, day.AddDays(1), 5, 1));
        var cards = CardSet.All;
        var dealt = LeitnerBoxes.Deal(cards, [new(cards[3].Id, 2, day, 1, 0), new(cards[5].Id, 1, day.AddDays(-1), 0, 1),
            new(cards[0].Id, 3, day.AddDays(1), 2, 0)], day, 4);
        dealt.Select(c => c.Id).ShouldBe([cards[5].Id, cards[3].Id, cards[1].Id, cards[2].Id]);
    }

    [Fact]
    public void Every_card_has_one_right_choice_says_why_and_no_two_choices_alike()
    {
        CardSet.All.Count.ShouldBeGreaterThan(60);
        CardSet.All.Select(c => c.Id).ShouldBeUnique();
        CardSet.All.Select(c => c.Trains).Distinct().Count().ShouldBeGreaterThan(6);
        foreach (var card in CardSet.All)
        {
            card.Choices.Count(c => c.IsRight).ShouldBe(1, card.Id);
            card.Choices.Select(c => c.Says).ShouldBeUnique(card.Id);
            card.Choices.Count.ShouldBeInRange(3, 6, card.Id);
            card.Choices.ShouldAllBe(c => c.Why.Length > 0, card.Id);
        }
    }

    [Fact]
    public void A_competence_is_shown_by_two_different_scenarios_within_twelve_months()
    {
        var (me, today) = (Guid.NewGuid(), new DateOnly(2026, 11, 25));
        bool Shown(params (string Scenario, int DaysAgo)[] runs) =>
            Competences.Of(runs.Select(r => new ShownOnce(me, Competence.Torque, r.Scenario, today.AddDays(-r.DaysAgo))), today)
                .Single(c => c.Competence == Competence.Torque).IsShown;
        Shown(("two-units", 1), ("crowfoot", 300)).ShouldBeTrue();
        Shown(("two-units", 1), ("two-units", 5)).ShouldBeFalse();
        Shown(("two-units", 1), ("crowfoot", 400)).ShouldBeFalse();
    }
}
