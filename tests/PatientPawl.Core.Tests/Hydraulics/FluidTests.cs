using FsCheck;
using FsCheck.Fluent;
using FsCheck.Xunit;
using PatientPawl.Core.Hydraulics;
using PatientPawl.Core.Reasoning;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Vehicles;
using PatientPawl.Core.Workshop;
using UnitsNet;

namespace PatientPawl.Core.Tests.Hydraulics;

public class FluidTests
{
    private static Length Mm(double v) => Length.FromMillimeters(v);
    private static Volume Ml(double v) => Volume.FromMilliliters(v);
    private static CornerFluid Corner(Side side, double travel, double need, double d = 38) => new(side, [Mm(d)], Mm(travel), Mm(need), null);
    private static CornerFluid[] Both(double travel, double need) => [Corner(Side.Left, travel, need), Corner(Side.Right, travel, need)];
    private static ReservoirInput Level(double percent, params CornerFluid[] corners) => new(new(Ml(100), Ml(20)), null, percent, corners, FluidRoomRule.DrawOff);

    [Theory]
    // FMVSS 116, 49 CFR 571.116, least equilibrium reflux boiling points, dry and wet (quoted from memory).
    [InlineData(FluidGrade.Dot3, 205, 140)]
    [InlineData(FluidGrade.Dot4, 230, 155)]
    [InlineData(FluidGrade.Dot51, 260, 180)]
    [InlineData(FluidGrade.Dot5, 260, 180)]
    public void Boiling_points_are_those_of_the_standard(FluidGrade grade, double dry, double wet)
    {
        var a = BrakeFluid.Judge(new(grade, null, 2, 120));
        (a.DryCelsius, a.WetCelsius).ShouldBe((dry, wet));
        a.MarginCelsius.ShouldBe(wet - 120);
        BrakeFluid.Judge(new(grade, null, 0, 120)).MarginCelsius.ShouldBe(dry - 120);
        a.Reasons.Lines.ShouldContain(l => l.SourceId == "fmvss-116");
    }

    [Fact]
    public void Glycol_mixes_count_as_the_lowest_and_silicone_and_oil_never_mix()
    {
        foreach (var cap in Enum.GetValues<FluidGrade>())
            foreach (var bottle in Enum.GetValues<FluidGrade>())
            {
                var a = BrakeFluid.Judge(new(cap, bottle, null, null));
                var never = cap != bottle && (cap is FluidGrade.Dot5 or FluidGrade.MineralOil || bottle is FluidGrade.Dot5 or FluidGrade.MineralOil);
                (a.Mix == MixVerdict.Never).ShouldBe(never, $"{cap} {bottle}");
                // Never below the cap's grade: whatever mixes is at least what the cap asks for.
                if (a.Mix == MixVerdict.Mixes) a.CountsAs.ShouldBe(cap);
            }

        BrakeFluid.Judge(new(FluidGrade.Dot4, FluidGrade.Dot3, null, null)).Mix.ShouldBe(MixVerdict.LowersTheGrade);
        BrakeFluid.Judge(new(FluidGrade.Dot4, FluidGrade.Dot51, null, null)).Mix.ShouldBe(MixVerdict.Mixes);
        BrakeFluid.Judge(new(FluidGrade.Class6, FluidGrade.Dot4, null, null)).Mix.ShouldBe(MixVerdict.LowersTheGrade);
    }

    [Theory]
    // Common practice, no source: under 1.5 % good, 1.5 to 3 % plan a change, 3 % or more change.
    [InlineData(1.49, WaterVerdict.Good)]
    [InlineData(1.5, WaterVerdict.PlanChange)]
    [InlineData(2.99, WaterVerdict.PlanChange)]
    [InlineData(3, WaterVerdict.Change)]
    public void Water_by_test_pen_has_three_answers(double percent, WaterVerdict verdict) => BrakeFluid.Judge(new(FluidGrade.Dot4, null, percent, null)).Water.ShouldBe(verdict);

    [Property(MaxTest = 200)]
    public Property Volume_scales_with_the_bore_squared_and_splits_over_the_travel() => Prop.ForAll(
        (from d in Gen.Choose(20, 50) from t in Gen.Choose(1, 300) from k in Gen.Choose(1, 9) select (d, t / 10.0, k / 10.0)).ToArbitrary(), x =>
        {
            double Back(double bore, double travel) => FluidBench.Predict(new(new(Ml(2000), Ml(2000)), null, 0, [Corner(Side.Left, travel, travel, bore)], FluidRoomRule.DrawOff)).Back.Milliliters;
            var (d, t, k) = x;
            return Math.Abs(Back(2 * d, t) - 4 * Back(d, t)) < 1e-6 && Math.Abs(Back(d, t * k) + Back(d, t * (1 - k)) - Back(d, t)) < 1e-6;
        });

    [Fact]
    public void Worked_example_both_sides_send_27_2_mL_back()
    {
        // pi/4 x 38^2 x 12 = 13 609 mm^3 a side, worked by hand; 27.2 mL is 0.9 US fl oz of 29.5735 mL.
        var a = FluidBench.Predict(Level(60, Both(12, 5)));
        a.Back.Milliliters.ShouldBe(27.218, 0.001);
        a.LevelHome.ShouldBe(87.218, 0.001);
        // With the pedal up: less area x (12 - 5 + 1) of both.
        a.LevelFinal.ShouldBe(87.218 - 2 * Math.PI / 4 * 38 * 38 * 8 / 1000, 0.001);
        a.Says[0].ShouldContain("27.2 mL (0.9 US fl oz)");
    }

    [Fact]
    public void The_final_level_is_the_net_of_new_parts_and_old_whatever_the_way_home()
    {
        // Fluid is neither made nor lost: the end depends on need less margin alone, not on how far it went in between.
        double Final(double travel) => FluidBench.Predict(Level(50, Both(travel, 7))).LevelFinal;
        Final(7).ShouldBe(Final(9), 1e-9);
        Final(7).ShouldBe(50 + 2 * Math.PI / 4 * 38 * 38 * 6 / 1000, 1e-6);
    }

    [Fact]
    public void A_full_reservoir_is_drawn_off_first_and_never_filled_now()
    {
        var full = FluidBench.Predict(Level(100, Both(12, 9)));
        full.Room.Verdict.ShouldBe(RoomVerdict.DrawOffFirst);
        full.Room.DrawOff.Milliliters.ShouldBe(27.218, 0.001);
        full.LevelHome.ShouldBe(100, 1e-6);
        full.NeverFillNow.ShouldBeTrue();
        full.Says.ShouldContain(s => s.StartsWith("Never fill"));
        full.Says.ShouldContain(s => s.Contains("topped up as the pads wore"));
        FluidBench.Predict(Level(20, Both(3, 3))).NeverFillNow.ShouldBeFalse();
    }

    [Fact]
    public void With_the_bleed_screw_open_nothing_comes_back_and_the_circuit_is_open()
    {
        var a = FluidBench.Predict(Level(100, Both(12, 9)) with { Room = FluidRoomRule.OpenBleeder });
        a.Back.ShouldBe(Volume.Zero);
        a.LevelHome.ShouldBe(100, 1e-9);
        a.Says.ShouldContain(s => s.Contains("close it before"));
        a.LevelFinal.ShouldBeLessThan(100);
    }

    [Fact]
    public void A_measured_reservoir_loses_its_wall_and_says_that_it_is_a_default()
    {
        var r = FluidBench.Measure(new(Mm(65), Mm(45), Mm(30), Mm(10)));
        r.Spec.Band.Milliliters.ShouldBe(60 * 40 * 30 / 1000.0, 1e-9);
        r.Spec.Headspace.Milliliters.ShouldBe(24, 1e-9);
        r.Reasons.Lines.ShouldContain(l => l.Kind == ReasonKind.Default && l.Label == "Wall");
        // The bench that rests on it shows how the volume came about.
        FluidBench.Predict(Level(60, Both(5, 5)) with { Reservoir = null, Sides = new(Mm(65), Mm(45), Mm(30), Mm(10)) }).Reasons.Lines.ShouldContain(l => l.Label == "Area" && l.Formula != null);
        FluidBench.Measure(new(Mm(60), null, Mm(30), Mm(0), Mm(0))).Spec.Band.Milliliters.ShouldBe(Math.PI / 4 * 3600 * 30 / 1000, 1e-9);
        Should.Throw<InputException>(() => FluidBench.Measure(new(Mm(20), Mm(20), Mm(5), Mm(0)))).Message.ShouldContain("10 to 2000");
        Should.Throw<InputException>(() => FluidBench.Predict(Level(60) with { Reservoir = null })).Message.ShouldContain("measure its sides");
    }

    private static StrokesInput Pump(CircuitSplit split, PumpRule rule, int? counted = null, bool firm = false, bool simulated = false) => new(Mm(20.6), Mm(16), split, rule, Both(10, 7), simulated, counted, firm);

    [Fact]
    public void Strokes_are_the_gap_over_what_a_stroke_moves()
    {
        // By hand: a corner's gap is pi/4 x 38^2 x 4 = 4.536 mL; a full stroke of 20.6 x 16 moves 5.333 mL, half of it 2.666.
        PedalStrokes.Predict(Pump(CircuitSplit.Diagonal, PumpRule.FullStrokes)).Expected.ShouldBe(1);
        PedalStrokes.Predict(Pump(CircuitSplit.Diagonal, PumpRule.HalfStrokes)).Expected.ShouldBe(2);
        PedalStrokes.Predict(Pump(CircuitSplit.ByAxle, PumpRule.FullStrokes)).Expected.ShouldBe(2);
        PedalStrokes.Predict(Pump(CircuitSplit.ByAxle, PumpRule.HalfStrokes)).Expected.ShouldBe(4);
    }

    [Fact]
    public void Ordinary_sizes_land_in_one_to_ten_strokes()
    {
        // Common practice, no source: about 1 to 10 strokes bring a rear axle up.
        foreach (var d in new[] { 34.0, 38, 43 })
            foreach (var master in new[] { (20.6, 14.0), (22.2, 16), (25.4, 18) })
                foreach (var slack in new[] { 0.0, 1, 3 })
                    foreach (var rule in Enum.GetValues<PumpRule>())
                        PedalStrokes.Predict(new(Mm(master.Item1), Mm(master.Item2), CircuitSplit.Diagonal, rule, [Corner(Side.Left, 8 + slack, 8, d), Corner(Side.Right, 8 + slack, 8, d)], false, null, false)).Expected!.Value.ShouldBeInRange(1, 10);
    }

    [Theory]
    [InlineData(13, false, StrokesVerdict.GoOn)]
    [InlineData(14, false, StrokesVerdict.NotFirm)]
    [InlineData(13, true, StrokesVerdict.Firm)]
    [InlineData(14, true, StrokesVerdict.FirmLate)]
    public void The_count_is_judged_against_twice_as_many_and_five(int counted, bool firm, StrokesVerdict verdict) =>
        PedalStrokes.Predict(Pump(CircuitSplit.ByAxle, PumpRule.HalfStrokes, counted, firm)).Verdict.ShouldBe(verdict);

    [Fact]
    public void A_simulated_pedal_has_no_strokes()
    {
        var a = PedalStrokes.Predict(Pump(CircuitSplit.ByAxle, PumpRule.HalfStrokes, 3, true, simulated: true));
        (a.Expected, a.Verdict).ShouldBe((null, StrokesVerdict.MakersRoutine));
    }

    [Fact]
    public void What_was_opened_decides_what_is_bled()
    {
        Bleeding.Decide([], null, BleedRule.WhenOpened).Scope.ShouldBe(BleedScope.Nothing);
        Bleeding.Decide([], null, BleedRule.Always).Scope.ShouldBe(BleedScope.Short);
        foreach (var what in new[] { CircuitOpening.HoseOff, CircuitOpening.CaliperRenewed, CircuitOpening.BleedScrewOpened, CircuitOpening.PedalWithPistonOut })
        {
            var one = Bleeding.Decide([new(what, Side.Left)], null, BleedRule.WhenOpened);
            (one.Scope, one.Corner).ShouldBe((BleedScope.OneCorner, Side.Left));
            Bleeding.Decide([new(what, Side.Left), new(CircuitOpening.HoseOff, Side.Right)], "rear left first", BleedRule.WhenOpened).Says[0].ShouldContain("rear left first");
        }

        Bleeding.Decide([new(CircuitOpening.ReservoirDry, null)], null, BleedRule.WhenOpened).Scope.ShouldBe(BleedScope.All);
        Bleeding.Decide([new(CircuitOpening.CaliperRenewed, Side.Left)], null, BleedRule.WhenOpened).Says.ShouldContain(s => s.Contains("washers"));
        Should.Throw<InputException>(() => Bleeding.Decide([new(CircuitOpening.HoseOff, null)], null, BleedRule.WhenOpened)).Errors.Single().Field.ShouldBe("side");
    }

    private static BleedDraw Draw(double ml = 15, bool bubbles = false, bool colour = false, bool clear = true, bool filled = false) => new(Guid.NewGuid(), Ml(ml), bubbles, colour, clear, filled);
    private static BleedAnswer Bleed(double level, params BleedDraw[] draws) => Bleeding.Follow(new(BleedMethod.TwoPerson, draws, new(Ml(75), Ml(60)), level, null));

    [Fact]
    public void Two_clear_draws_in_a_row_end_it_and_nothing_less()
    {
        Bleed(100).Done.ShouldBeFalse();
        Bleed(100, Draw()).Done.ShouldBeFalse();
        Bleed(100, Draw(), Draw()).Done.ShouldBeTrue();
        Bleed(100, Draw(), Draw(bubbles: true)).ClearInARow.ShouldBe(0);
        Bleed(100, Draw(), Draw(bubbles: true), Draw()).Done.ShouldBeFalse();
        Bleed(100, Draw(), Draw(colour: true)).Done.ShouldBeFalse();
        Bleed(100, Draw(clear: false), Draw()).Done.ShouldBeFalse();
    }

    [Fact]
    public void Draws_before_filling_are_counted_from_the_level_and_going_dry_undoes_the_proof()
    {
        // 75 mL at 100 % in draws of 15 mL: five.
        Bleed(100).DrawsBeforeFilling.ShouldBe(5);
        Bleed(50).DrawsBeforeFilling.ShouldBe(2);
        Bleed(100, Draw(25), Draw(25)).DrawsBeforeFilling.ShouldBe(1);
        var low = Bleed(40, Draw(), Draw());
        (low.DrawsBeforeFilling, low.Done, low.LevelPercent).ShouldBe((0, true, 0));
        var dry = Bleed(30, Draw(), Draw());
        (dry.RanDry, dry.Done).ShouldBe((true, false));
        // Filled again it starts anew: what was clear before proves nothing, two after it do.
        Bleed(30, Draw(), Draw(), Draw(filled: true), Draw()).ClearInARow.ShouldBe(1);
        var anew = Bleed(30, Draw(), Draw(), Draw(filled: true), Draw(), Draw());
        (anew.RanDry, anew.Done).ShouldBe((true, true));
        Bleed(30, Draw(filled: true), Draw()).LevelPercent.ShouldBe(80, 1e-9);
        foreach (var m in Enum.GetValues<BleedMethod>()) Bleeding.Follow(new(m, [], new(Ml(75), Ml(60)), 100, null)).Steps.Count.ShouldBeGreaterThanOrEqualTo(3);
    }

    [Fact]
    public void A_leak_check_is_thirty_seconds_dry_and_looked_at()
    {
        LeakAnswer Leak(int s, bool sank = false, Known screw = Known.Yes, Known banjo = Known.NotKnown, Known pipes = Known.Yes) => LeakCheck.Judge(new(s, sank, screw, banjo, pipes));
        Leak(30).Passed.ShouldBeTrue();
        Leak(29).SecondsLeft.ShouldBe(1);
        Leak(29).Passed.ShouldBeFalse();
        Leak(40, sank: true).Passed.ShouldBeFalse();
        Leak(40, screw: Known.No).Passed.ShouldBeFalse();
        Leak(40, banjo: Known.No).Passed.ShouldBeFalse();
        // A corroded pipe is looked for before the pedal is pressed hard.
        Leak(0, pipes: Known.No).Says.ShouldContain("first");
        Leak(40, pipes: Known.NotKnown).Passed.ShouldBeFalse();
    }

    [Fact]
    public void Figures_that_cannot_be_are_named_with_their_range()
    {
        Should.Throw<InputException>(() => BrakeFluid.Judge(new(FluidGrade.Dot4, null, 40, 5))).Errors.Select(e => e.Field).ShouldBe(["waterPercent", "hottestCelsius"]);
        Should.Throw<InputException>(() => PedalStrokes.Predict(Pump(CircuitSplit.ByAxle, PumpRule.HalfStrokes) with { MasterDiameter = Mm(0.8) })).Message.ShouldContain("20.32");
        Should.Throw<InputException>(() => Bleed(400, Draw(0))).Errors.Select(e => e.Field).ShouldBe(["levelPercent", "volumeMl"]);
        Should.Throw<InputException>(() => FluidBench.Predict(Level(60, Corner(Side.Left, 1, 1), Corner(Side.Left, 1, 1)))).Message.ShouldContain("twice");
        Should.Throw<InputException>(() => LeakCheck.Judge(new(-1, false, Known.Yes, Known.Yes, Known.Yes)));
    }
}

/// <summary>Fluid is neither made nor lost: the level's account over random jobs.</summary>
public class FluidAccountTests
{
    private static Length Mm(double v) => Length.FromMillimeters(v);
    private static Volume Ml(double v) => Volume.FromMilliliters(v);

    private static readonly Gen<(double Band, double Head, double Level, double Bore, double Travel, double Need)> Jobs =
        from band in Gen.Choose(30, 200)
        from head in Gen.Choose(0, 120)
        from level in Gen.Choose(0, 150)
        from bore in Gen.Choose(25, 50)
        from travel in Gen.Choose(0, 250)
        from short_ in Gen.Choose(0, 60)
        select ((double)band, (double)head, (double)level, (double)bore, travel / 10.0, Math.Max(travel - short_, 0) / 10.0);

    private static ReservoirAnswer Predict((double Band, double Head, double Level, double Bore, double Travel, double Need) j, FluidRoomRule rule = FluidRoomRule.DrawOff) =>
        FluidBench.Predict(new(new(Ml(j.Band), Ml(j.Head)), null, j.Level, [.. Sides.Both.Select(s => new CornerFluid(s, [Mm(j.Bore)], Mm(j.Travel), Mm(j.Need), null))], rule));

    [Property(MaxTest = 400)]
    public Property It_never_runs_over_the_brim_once_the_advice_is_followed() => Prop.ForAll(Jobs.ToArbitrary(), j =>
    {
        var a = Predict(j);
        var brim = 100 + j.Head / j.Band * 100;
        return a.LevelHome <= Math.Min(Math.Max(brim, 100), 100 + j.Head / j.Band * 50) + 1e-6 && a.LevelDrawn >= Math.Min(j.Level, 0) - 1e-6 && a.Room.DrawOff.Milliliters >= 0 && a.TopUp.Milliliters >= 0 && a.LevelDrawn <= j.Level + 1e-9;
    });

    [Property(MaxTest = 400)]
    public Property The_account_closes() => Prop.ForAll(Jobs.ToArbitrary(), j =>
    {
        var a = Predict(j);
        var area = 2 * Math.PI / 4 * j.Bore * j.Bore / 1000;
        var back = area * j.Travel;
        var gap = area * (j.Travel - j.Need + 1);
        // level x band + back - drawn - gap, by hand.
        var end = j.Level / 100 * j.Band + back - a.Room.DrawOff.Milliliters - a.Room.DrawWhile.Milliliters - gap;
        return Math.Abs(a.LevelFinal / 100 * j.Band - end) < 1e-6 && Math.Abs(a.Back.Milliliters - back) < 1e-6;
    });

    [Property(MaxTest = 200)]
    public Property Filling_is_forbidden_exactly_when_it_would_overflow() => Prop.ForAll(Jobs.ToArbitrary(), j =>
    {
        var a = Predict(j);
        return a.NeverFillNow == (a.Back.Milliliters > j.Head) && Predict(j, FluidRoomRule.OpenBleeder) is { NeverFillNow: false, Back.Milliliters: 0 } open && Math.Abs(open.LevelHome - open.LevelDrawn) < 1e-9;
    });

    [Property(MaxTest = 200)]
    public Property More_strokes_for_a_bigger_gap_and_fewer_for_a_bigger_master() => Prop.ForAll(
        (from bore in Gen.Choose(30, 45) from slack in Gen.Choose(0, 50) from master in Gen.Choose(18, 26) select ((double)bore, slack / 10.0, (double)master)).ToArbitrary(), x =>
        {
            var (bore, slack, master) = x;
            int N(double b, double s, double m, PumpRule r = PumpRule.HalfStrokes) => PedalStrokes.Predict(new(Mm(m), Mm(16), CircuitSplit.Diagonal, r, [new CornerFluid(Side.Left, [Mm(b)], Mm(8 + s), Mm(8), null)], false, null, false)).Expected!.Value;
            return N(bore, slack + 1, master) >= N(bore, slack, master) && N(bore, slack, master + 2) <= N(bore, slack, master) && N(bore + 3, slack, master) >= N(bore, slack, master)
                && N(bore, slack, master, PumpRule.FullStrokes) <= N(bore, slack, master) && N(bore, slack, master) >= 1;
        });

    [Property(MaxTest = 300)]
    public Property Bleeding_is_done_only_on_two_clear_draws_with_the_level_above_min() => Prop.ForAll(
        (from level in Gen.Choose(20, 100) from draws in Gen.Choose(0, 31).ListOf() select (level, draws.Take(20).ToArray())).ToArbitrary(), x =>
        {
            var (level, codes) = x;
            // Five bits: bubbles, colour, clear, filled, a large draw.
            var draws = codes.Select(c => new BleedDraw(Guid.NewGuid(), Ml((c & 16) != 0 ? 30 : 8), (c & 1) != 0, (c & 2) != 0, (c & 4) != 0, (c & 8) != 0)).ToArray();
            var a = Bleeding.Follow(new(BleedMethod.Gravity, draws, new(Ml(75), Ml(60)), level, null));
            var (at, dry, ever, since) = ((double)level, false, false, new List<BleedDraw>());
            foreach (var d in draws)
            {
                since.Add(d);
                at -= d.Volume.Milliliters / 75 * 100;
                if (at < -1e-6) dry = ever = true;
                if (!d.Filled) continue;
                at = 100;
                if (dry) since.Clear();
                dry = false;
            }

            var two = since.Count >= 2 && since[^2..].All(d => d is { Bubbles: false, ColourChanged: false, Clear: true });
            return a.Done == (two && !dry) && a.RanDry == ever && Math.Abs(a.LevelPercent - at) < 1e-6 && Math.Abs(a.Drawn.Milliliters - draws.Sum(d => d.Volume.Milliliters)) < 1e-9;
        });

    [Theory]
    // NIST SP 811 (from memory): 1 US fl oz is 29.573 53 mL.
    [InlineData(29.5735, "1 US fl oz")]
    [InlineData(59.147, "2 US fl oz")]
    public void Fluid_ounces_stand_beside_millilitres(double millilitres, string ounces)
    {
        var travel = millilitres * 1000 / (Math.PI / 4 * 38 * 38);
        HowFar.Compute(new(new(Mm(8), Mm(8), Mm(10)), new(Mm(8), Mm(8), Mm(10)), Mm(travel), Mm(0), null, Mm(38), 1, null), RetractDepthRule.AllTheWayHome).Reasons.Lines[^1].Result.ShouldContain(ounces);
    }

    [Fact]
    public void Class_6_and_mineral_oil_defer_to_the_maker()
    {
        foreach (var grade in new[] { FluidGrade.Class6, FluidGrade.MineralOil })
        {
            var a = BrakeFluid.Judge(new(grade, null, null, 150));
            (a.DryCelsius, a.MarginCelsius).ShouldBe((null, null));
            a.Says.ShouldContain(s => s.Contains("the maker's"));
        }
    }

    [Fact]
    public void What_is_refused_does_not_change_what_the_system_counts_as()
    {
        var refused = BrakeFluid.Judge(new(FluidGrade.Dot4, FluidGrade.Dot3, 1, 100));
        (refused.CountsAs, refused.DryCelsius).ShouldBe((FluidGrade.Dot3, 230));
        // A fluid hotter than its wet point may boil, and the sentence says by how much.
        BrakeFluid.Judge(new(FluidGrade.Dot3, null, 2, 160)).Says.ShouldContain(s => s.Contains("20 degrees over"));
        // With no water in it the fresh figure is promised.
        BrakeFluid.Judge(new(FluidGrade.Dot3, null, 0, 160)).MarginCelsius.ShouldBe(45);
    }
}
