using FsCheck;
using FsCheck.Fluent;
using FsCheck.Xunit;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Proving;
using PatientPawl.Core.Reasoning;
using UnitsNet;

namespace PatientPawl.Core.Tests.Proving;

public class ProvingTests
{
    private static Speed Kmh(double v) => Speed.FromKilometersPerHour(v);
    private static BedInSeries Series(int stops = 10, double from = 50, double to = 10, double gap = 45) =>
        new(stops, Kmh(from), Kmh(to), Duration.FromSeconds(gap));
    private static BedInFacts Facts(BedInSeries? series = null, double mass = 1500, double rotor = 5, double air = 20) =>
        new(series ?? Series(), false, Mass.FromKilograms(mass), Mass.FromKilograms(rotor), air, null, null, null, false, false);

    private static ParkingHoldFacts Hold(double mass = 1500) =>
        new(ApprovedAs.Car, Mass.FromKilograms(mass), null, null, null, null, null, null, null, null, null, null);
    private static ParkingHoldFacts Rollers(double left, double right, double mass = 1500) =>
        Hold(mass) with { Left = Force.FromNewtons(left), Right = Force.FromNewtons(right) };

    [Fact]
    public void A_1500_kg_car_from_50_to_10_kmh_heats_5_kg_rear_rotors_9_K_a_stop_under_a_ceiling_near_85_degrees()
    {
        // Worked by hand: 138.9 kJ a stop, 30 % to the rear, 2 x 5 kg x 460 J/(kg K): 9.06 K; 20 + 9.06 / (1 - exp(-45/300)) = 85.0.
        var a = BedIn.Reckon(Facts());
        a.RiseKelvin.ShouldBe(9.06, 0.01);
        a.CeilingCelsius.ShouldBe(85, 0.2);
        a.Band.ShouldBe(BedInBand.OutOfReach);
        a.Says.ShouldContain("out of reach");
        a.Reasons.UsesDefaults.ShouldBeTrue();
        a.Reasons.Lines.ShouldContain(l => l.SourceId == "bed-in-heat");
    }

    [Fact]
    public void Where_the_band_can_be_reached_it_is_told_by_how_many_stops()
    {
        // A laden van on small rotors from 100 km/h: hot, whether it is wanted or not.
        BedInFacts Van(int stops, double gap) => Facts(Series(stops, 100, 10, gap), 3500, 6);
        BedIn.Reckon(Van(1, 60)).Band.ShouldBe(BedInBand.NotReached);
        BedIn.Reckon(Van(3, 60)).Band.ShouldBe(BedInBand.Reached);
        var hot = BedIn.Reckon(Van(12, 20));
        hot.Band.ShouldBe(BedInBand.TooHot);
        hot.Says.ShouldContain("fewer stops");
    }

    [Property(MaxTest = 300)]
    public Property Every_stop_heats_none_goes_over_the_ceiling_and_the_heat_of_the_stops_is_what_the_air_and_the_rotor_have()
    {
        var gen = from stops in Gen.Choose(1, 30)
                  from v1 in Gen.Choose(30, 130)
                  from v2 in Gen.Choose(0, 25)
                  from gap in Gen.Choose(5, 600)
                  from mass in Gen.Choose(600, 7500)
                  from rotor in Gen.Choose(2, 20)
                  from air in Gen.Choose(-20, 45)
                  select Facts(Series(stops, v1, v2, gap), mass, rotor, air);
        return Prop.ForAll(gen.ToArbitrary(), f =>
        {
            var a = BedIn.Reckon(f);
            a.Stops.Count.ShouldBe(f.Series.Stops);
            var cooled = 0.0;
            foreach (var (s, i) in a.Stops.Select((s, i) => (s, i)))
            {
                (s.AfterCelsius - s.BeforeCelsius).ShouldBe(a.RiseKelvin, 1e-9);
                s.AfterCelsius.ShouldBeLessThanOrEqualTo(a.CeilingCelsius + 1e-6);
                if (i > 0) cooled += a.Stops[i - 1].AfterCelsius - s.BeforeCelsius;
            }

            // The account closes: what went in is in the rotor, or in the air.
            (a.Stops[^1].AfterCelsius - f.AmbientCelsius + cooled).ShouldBe(a.RiseKelvin * f.Series.Stops, 1e-6);
        });
    }

    [Fact]
    public void Stepped_through_second_by_second_the_rotor_ends_as_the_exponential_says()
    {
        // Newton's law of cooling integrated by small steps, which shares nothing with the closed form.
        var a = BedIn.Reckon(Facts(Series(6, 80, 10, 60)));
        var t = 20.0;
        for (var stop = 0; stop < 6; stop++)
        {
            if (stop > 0) for (var i = 0; i < 60_000; i++) t -= (t - 20) / 300 * 0.001;
            t += a.RiseKelvin;
        }

        a.Stops[^1].AfterCelsius.ShouldBe(t, 0.01);
    }

    [Fact]
    public void A_speed_over_the_local_limit_is_refused_and_each_wrong_figure_is_named_with_its_range()
    {
        var over = Should.Throw<InputException>(() => BedIn.Reckon(Facts() with { LocalLimit = Kmh(40) }));
        over.Message.ShouldContain("50 km/h is over the local limit of 40 km/h");
        Should.Throw<InputException>(() => BedIn.Reckon(Facts(Series(5, 50, 50)))).Errors.Single().Field.ShouldBe("series.toKmh");
        var all = Should.Throw<InputException>(() => BedIn.Reckon(Facts(Series(0, 300, -1, 1), 20, 0.1, 90))).Errors.Select(e => e.Field)
            .ToArray();
        all.ShouldBe(["series.stops", "series.fromKmh", "series.toKmh", "series.gapS", "vehicleKg", "rotorKg", "ambientCelsius"]);
    }

    [Fact]
    public void What_a_car_is_decides_what_its_driver_is_told()
    {
        BedIn.Reckon(Facts()).Cautions.ShouldContain(c => c.Contains("pad maker's sheet wins"));
        var electric = BedIn.Reckon(Facts() with { FromMaker = true, Regenerates = true, HatShoes = true, LocalLimit = Kmh(60) }).Cautions;
        electric.ShouldContain(c => c.Contains("brakes with its motor first"));
        electric.ShouldContain(c => c.Contains("where the maker allows it"));
        electric.ShouldContain(c => c.Contains("Never over 60 km/h"));
        electric.ShouldNotContain(c => c.Contains("pad maker's sheet wins"));
    }

    [Fact]
    public void A_1500_kg_car_on_the_20_percent_grade_of_the_type_rules_asks_2884_9_N()
    {
        // FMVSS 135 S7.12 and UN R13-H, from memory; m g sin(atan 0.20), g = 9.80665.
        ParkingHold.Judge(Hold()).Asked.Newtons.ShouldBe(2884.9, 0.05);
        ParkingHold.Judge(Hold(3500) with { Approved = ApprovedAs.VanOrMinibus }).AskedGradePercent.ShouldBe(18);
    }

    [Theory]
    // Directive 2014/45/EU, from memory: 16 % of the weight of the maximum authorised mass; 1500 kg weighs 14 710 N, 16 % of it is 2353.6 N.
    [InlineData(1400, 1400, Verdict.Inside)]
    [InlineData(1177, 1177, Verdict.TooCloseToCall)]
    [InlineData(1000, 1000, Verdict.Outside)]
    public void Roller_forces_are_judged_against_the_ratio_with_the_doubt_of_the_bench(double left, double right, Verdict wanted)
    {
        var a = ParkingHold.Judge(Rollers(left, right));
        a.Verdict.ShouldBe(wanted);
        a.RatioPercent!.Value.ShouldBe((left + right) / (1500 * 9.80665) * 100, 1e-9);
        a.Reasons.Lines.ShouldContain(l => l.SourceId == "periodic-16");
    }

    [Fact]
    public void A_weak_side_fails_though_both_together_are_strong_and_is_named()
    {
        var a = ParkingHold.Judge(Rollers(2600, 1500));
        a.ApartPercent!.Value.ShouldBe(1100 / 2600.0 * 100, 1e-9);
        a.Verdict.ShouldBe(Verdict.Outside);
        a.Proofs.Single(p => p.Verdict == Verdict.Outside).Check!.ShouldContain("right corner");
        // The local rule wins over the default.
        ParkingHold.Judge(Rollers(2600, 1500) with { SidesPercent = 50 }).Verdict.ShouldBe(Verdict.Inside);
    }

    [Fact]
    public void A_hill_proves_it_both_ways_only_and_failing_one_way_fails()
    {
        var hill = Hold() with { HillPercent = 12 };
        ParkingHold.Judge(hill with { HeldUp = true, HeldDown = true }).Verdict.ShouldBe(Verdict.Inside);
        ParkingHold.Judge(hill with { HeldUp = true }).Verdict.ShouldBe(Verdict.NotYetEnough);
        var failed = ParkingHold.Judge(hill with { HeldUp = true, HeldDown = false });
        failed.Verdict.ShouldBe(Verdict.Outside);
        failed.Says.ShouldContain("nose down");
    }

    [Fact]
    public void A_hot_rotor_is_a_side_that_drags_and_proves_nothing_of_the_hold()
    {
        var drive = Hold() with { LeftCelsius = 95, RightCelsius = 60, AirCelsius = 15 };
        ParkingHold.Judge(drive).Proofs.Single().Says.ShouldContain("left rotor is 35 K hotter");
        ParkingHold.Judge(drive).Verdict.ShouldBe(Verdict.Outside);
        ParkingHold.Judge(drive with { RightCelsius = 85 }).Verdict.ShouldBe(Verdict.NotYetEnough);
        // A quarter of a large rise is more than 20 K.
        ParkingHold.Judge(drive with { LeftCelsius = 215, RightCelsius = 180 }).Proofs.Single().Verdict.ShouldBe(Verdict.Inside);
    }

    [Fact]
    public void A_reading_whose_pair_is_missing_is_asked_for()
    {
        Should.Throw<InputException>(() =>
            ParkingHold.Judge(Hold() with { Left = Force.FromNewtons(1000) })).Errors.Single().Field.ShouldBe("rightN");
        Should.Throw<InputException>(() => ParkingHold.Judge(Hold() with { LeftCelsius = 50 })).Errors.Select(e => e.Field)
            .ShouldBe(["rightCelsius", "airCelsius"]);
        Should.Throw<InputException>(() => ParkingHold.Judge(Hold() with { HeldUp = true })).Errors.Single().Field.ShouldBe("hillPercent");
    }
}
