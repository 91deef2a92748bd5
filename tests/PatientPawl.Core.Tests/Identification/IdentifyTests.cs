using FsCheck;
using FsCheck.Fluent;
using FsCheck.Xunit;
using PatientPawl.Core.Identification;
using PatientPawl.Core.Retraction;
using static PatientPawl.Core.Identification.Architecture;

namespace PatientPawl.Core.Tests.Identification;

public class IdentifyTests
{
    private static Observation O(Look look, Seen seen) => new(look, seen);

    private static Identified Of(params Observation[] looks) => Identify.Corner(looks, mechanismRelaxed: true);

    /// <summary>Any set of answers, each look at most once.</summary>
    public static Arbitrary<Observation[]> Answers() => Gen.Elements(LookCatalogue.All.ToArray())
        .SelectMany(c => Gen.Elements(c.Answers.ToArray()).Select(a => O(c.Look, a))).ArrayOf()
        .Select(a => a.DistinctBy(o => o.Look).ToArray()).ToArbitrary();

    [Property(MaxTest = 1000)]
    public Property The_order_of_observations_does_not_matter() => Prop.ForAll(Answers(), Gen.Choose(0, int.MaxValue).ToArbitrary(), (looks, seed) =>
    {
        var shuffled = looks.ToArray();
        new Random(seed).Shuffle(shuffled);
        var (a, b) = (Of(looks), Of(shuffled));
        return a.Standing.SequenceEqual(b.Standing) && a.Ruled == b.Ruled && a.Next == b.Next && a.Contradictions.SequenceEqual(b.Contradictions)
            && a.Reasons.Lines.SequenceEqual(b.Reasons.Lines);
    });

    [Property(MaxTest = 1000)]
    public Property An_observation_never_revives_an_architecture() => Prop.ForAll(Answers(), looks =>
    {
        var standing = Enumerable.Range(0, looks.Length + 1).Select(n => Of(looks[..n]).Standing).ToArray();
        return standing.Zip(standing.Skip(1)).All(step => !step.Second.Except(step.First).Any());
    });

    [Property(MaxTest = 500)]
    public Property Every_architecture_stands_or_fell_to_an_observation_that_was_made() => Prop.ForAll(Answers(), looks =>
    {
        var found = Of(looks);
        return found.Standing.Count + found.Fallen.Count == 13 && found.Fallen.All(f => f.FelledBy.Count > 0 && f.FelledBy.All(looks.Contains));
    });

    [Property(MaxTest = 500)]
    public Property The_next_look_has_not_been_had_and_parts_what_stands() => Prop.ForAll(Answers(), looks =>
    {
        var found = Of(looks);
        if (found.Next is not { } next) return true;
        return looks.All(o => o.Look != next.Look) && next.LeavesAtMost <= found.Standing.Count
            && next.Look.Card().Answers.Any(a => Of([.. looks, O(next.Look, a)]).Standing.Count < found.Standing.Count);
    });

    [Property(MaxTest = 500)]
    public Property With_none_standing_the_contradiction_is_smallest() => Prop.ForAll(Answers(), looks =>
    {
        var found = Of(looks);
        if (found.Standing.Count > 0) return true;
        bool Left(Identified f) => f.Standing.Count > 0 && f.Contradictions.Count == 0;
        return found.Ruled is null && !Left(Of([.. found.Contradictions])) | found.Contradictions.Count == 2
            && found.Contradictions.All(o => found.Contradictions.Count == 2 || Left(Of([.. found.Contradictions.Where(x => x != o)])));
    });

    [Fact]
    public void A_push_that_moved_and_is_left_out_takes_along_what_was_only_needed_beside_it()
    {
        // Found by the property above: one pass over the looks kept one that is not needed.
        Observation[] looks =
        [
            O(Look.RearHexPlug, Seen.No), O(Look.CaliperLever, Seen.No), O(Look.PlateMotor, Seen.No), O(Look.SecondCaliper, Seen.No), O(Look.OpposedPistons, Seen.No), O(Look.PlateCable, Seen.No),
            O(Look.PullerBox, Seen.Yes), O(Look.PadPin, Seen.Yes), O(Look.CabinControl, Seen.FootPedal), O(Look.HatHole, Seen.Yes), O(Look.CaliperMotor, Seen.No), O(Look.PistonFace, Seen.TwoNotches),
            O(Look.BrakeHose, Seen.Yes), O(Look.PushMoves, Seen.Yes), O(Look.PadSpringClip, Seen.No),
        ];
        var found = Of(looks).Contradictions;
        found.ShouldNotBeEmpty();
        foreach (var o in found)
        {
            var rest = Of([.. found.Where(x => x != o)]);
            rest.Standing.ShouldNotBeEmpty();
            rest.Contradictions.ShouldBeEmpty();
        }
    }

    [Fact]
    public void Nothing_seen_rules_nothing_out()
    {
        var found = Of();
        found.Standing.Count.ShouldBe(13);
        found.Ruled.ShouldBeNull();
        found.BrakeByWireUnsettled.ShouldBeTrue();
    }

    // Trade facts, common practice, no source.
    [Theory]
    [InlineData(Seen.TwoNotches)]
    [InlineData(Seen.Cross)]
    [InlineData(Seen.ThreeLobes)]
    [InlineData(Seen.VShape)]
    public void A_notched_face_fells_nothing(Seen face) => Of(O(Look.PistonFace, face)).Fallen.ShouldBeEmpty();

    [Fact]
    public void A_plain_cup_fells_the_screws_but_not_the_rear_hex()
    {
        var fallen = Of(O(Look.PistonFace, Seen.PlainCup)).Fallen.Select(f => f.Architecture);
        fallen.ShouldBe([CableScrew, PullerScrew, MotorTurn], ignoreOrder: true);
    }

    [Fact]
    public void A_plug_in_the_hat_with_no_lever_and_no_motor_means_shoes()
    {
        var standing = Of(O(Look.HatHole, Seen.Yes), O(Look.CaliperLever, Seen.No), O(Look.CaliperMotor, Seen.No), O(Look.PlateMotor, Seen.No),
            O(Look.SecondCaliper, Seen.No), O(Look.BrakeHose, Seen.Yes), O(Look.RearHexPlug, Seen.No)).Standing;
        standing.ShouldAllBe(a => a == HatShoes || a == PullerHat || a == FixedHat);
        standing.ShouldContain(HatShoes);
    }

    [Fact]
    public void A_lever_and_a_motor_on_one_caliper_is_look_again_and_never_a_ruling()
    {
        var found = Of(O(Look.CaliperLever, Seen.Yes), O(Look.CaliperMotor, Seen.Yes), O(Look.CabinControl, Seen.Switch));
        found.Contradictions.Select(o => o.Look).ShouldBe([Look.CaliperLever, Look.CaliperMotor]);
        found.Ruled.ShouldBeNull();
        found.Reasons.Lines[^1].Result.ShouldStartWith("Look again");
    }

    [Fact]
    public void Motor_push_and_turn_share_a_ruling_until_a_push_with_the_spindle_back_parts_them()
    {
        Observation[] motor = [O(Look.CabinControl, Seen.Switch), O(Look.CaliperMotor, Seen.Yes), O(Look.CaliperLever, Seen.No), O(Look.BrakeHose, Seen.Yes), O(Look.PistonFace, Seen.Cross)];
        var found = Of(motor);
        found.Standing.ShouldBe([MotorPush, MotorTurn]);
        found.Joint.ShouldBeTrue();
        found.MethodUndecided.ShouldBeTrue();
        found.Next!.Look.ShouldBe(Look.PushMoves);
        Of([.. motor, O(Look.PushMoves, Seen.Yes)]).Ruled.ShouldBe(MotorPush);
        Of([.. motor, O(Look.PushMoves, Seen.No)]).Ruled.ShouldBe(MotorTurn);
    }

    [Fact]
    public void A_push_on_a_mechanism_not_known_to_be_relaxed_proves_nothing()
    {
        Observation[] looks = [O(Look.CaliperLever, Seen.Yes), O(Look.CabinControl, Seen.HandLever), O(Look.PushMoves, Seen.No)];
        Identify.Corner(looks, mechanismRelaxed: false).Standing.ShouldContain(LeverPush);
        Identify.Corner(looks, mechanismRelaxed: true).Standing.ShouldNotContain(LeverPush);
    }

    [Fact]
    public void Lever_push_beside_a_screw_does_not_block_the_screws_ruling()
    {
        Observation[] lever = [O(Look.CabinControl, Seen.HandLever), O(Look.CaliperLever, Seen.Yes), O(Look.CaliperMotor, Seen.No), O(Look.RearHexPlug, Seen.No), O(Look.BrakeHose, Seen.Yes)];
        var found = Of(lever);
        found.Standing.ShouldBe([CableScrew, LeverPush]);
        found.Ruled.ShouldBe(CableScrew);
        Of([.. lever, O(Look.PushMoves, Seen.Yes)]).Ruled.ShouldBe(LeverPush);
    }

    [Fact]
    public void No_hose_leaves_the_electric_corner_alone_and_its_ruling_stops_the_job()
    {
        var found = Of(O(Look.BrakeHose, Seen.No));
        found.Standing.ShouldBe([ElectricOnly]);
        RetractionRuling.Decide(ElectricOnly, Side.Left, null).Method.ShouldBe(RetractMethod.MakersProcedure);
    }

    [Fact]
    public void No_puller_box_seen_is_no_proof_that_there_is_none() => Of(O(Look.PullerBox, Seen.No)).Fallen.ShouldBeEmpty();

    [Theory]
    [InlineData(Look.CabinControl, Seen.Yes)]
    [InlineData(Look.BrakeHose, Seen.Cross)]
    [InlineData(Look.PistonFace, Seen.No)]
    [InlineData(Look.CaliperLever, Seen.NotKnown)]
    public void An_answer_the_look_cannot_have_is_refused_with_what_is_allowed(Look look, Seen seen)
    {
        var error = Should.Throw<InputException>(() => Of(O(look, seen))).Errors[0];
        error.Field.ShouldBe("seen");
        error.Allowed.ShouldNotBeEmpty();
    }

    [Fact]
    public void A_look_answered_twice_is_refused() =>
        Should.Throw<InputException>(() => Of(O(Look.BrakeHose, Seen.Yes), O(Look.BrakeHose, Seen.No))).Errors[0].Field.ShouldBe("look");

    [Fact]
    public void Ties_go_to_the_look_that_needs_least_dismantling()
    {
        // Only motor-push and motor-turn apart from each other: a cup or a push would part them; the cup is nearer.
        var next = Identify.Corner([O(Look.CabinControl, Seen.Switch), O(Look.CaliperMotor, Seen.Yes), O(Look.BrakeHose, Seen.Yes)], false).Next!;
        next.Look.ShouldBe(Look.PushMoves);
        next.WaitsForRelaxed.ShouldBeTrue();
        // From nothing, no look of the caliper-off kind beats one that can be had from the cabin or outside.
        Of().Next!.Look.Card().Reach.ShouldBeOneOf(LookReach.Cabin, LookReach.WheelOn);
    }
}
