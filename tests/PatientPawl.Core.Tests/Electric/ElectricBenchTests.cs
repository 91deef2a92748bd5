using PatientPawl.Core.Electric;
using PatientPawl.Core.Electric.Link;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Planning;

namespace PatientPawl.Core.Tests.Electric;

/// <summary>What the electric bench rests on: it has no way of its own to a motor, and its words and codes are whole.</summary>
public class ElectricBenchTests
{
    [Theory]
    [InlineData("service-entered")]
    [InlineData("service-entered-car")]
    [InlineData("service-closed")]
    [InlineData("first-apply")]
    [InlineData("brake-cycled")]
    [InlineData("brake-applied")]
    [InlineData("brake-released")]
    public void Every_step_by_which_the_bench_moves_a_motor_needs_all_hands_out(string step) =>
        StepCatalogue.Find(step)!.Concerns.HasFlag(Concern.HandsOut).ShouldBeTrue();

    [Fact]
    public void Codes_are_written_as_SAE_J2012_writes_them_and_each_has_its_cause_and_remedy()
    {
        // Two bits of system, two of the first figure, three figures more (SAE J2012, from memory).
        CarLink.Letters(0x5A01).ShouldBe("C1A01");
        CarLink.Letters(0xDA01).ShouldBe("U1A01");
        CarLink.Letters(0x0123).ShouldBe("P0123");
        TroubleCodes.All.Select(c => c.Letters).Distinct().Count().ShouldBe(TroubleCodes.All.Count);
        TroubleCodes.All.ShouldAllBe(c => c.Cause.Length > 10 && c.Remedy.Length > 10);
        Words.Code("C1A01").ShouldBe("C1A01 rear brake actuator left, circuit open");
        Words.Code("P0123").ShouldBe("P0123");
    }

    [Fact]
    public void What_the_unit_says_of_itself_goes_over_the_link_and_comes_back_whole()
    {
        var said = new LiveState(2, UnitState.Closing, Routine.ServiceOut, RoutineStatus.Running, SideEnd.Moving, SideEnd.Clamped, true, 13_214, 206, -14, 1402, -183, 1000);
        LiveState.From(said.ToBytes()).ShouldBe(said);
        LiveState.From(said.ToBytes().AsSpan(1)).ShouldBeNull();
        LiveState.From(new byte[] { 2, 99, 2, 2, 1, 1, 1, 1, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0 }).ShouldBeNull();
    }

    [Fact]
    public void Frames_are_those_of_the_standard_byte_for_byte()
    {
        Convert.ToHexString(Doip.Message(0x0E80, 0x0E51, [0x31, 0x01, 0x02, 0x01])).ShouldBe("02FD8001000000080E800E5131010201");
        Doip.Header(Convert.FromHexString("02FD800100000008"), out var type, out var length).ShouldBeNull();
        (type, length).ShouldBe((DoipType.Message, 8u));
        Doip.Header(Convert.FromHexString("02FC800100000008"), out _, out _).ShouldBe(HeaderFault.Pattern);
        Doip.Header(Convert.FromHexString("02FD123400000008"), out _, out _).ShouldBe(HeaderFault.Type);
        Doip.Header(Convert.FromHexString("02FD8001FFFFFFFF"), out _, out _).ShouldBe(HeaderFault.TooLarge);
        Doip.Header(Convert.FromHexString("02FD000700000001"), out _, out _).ShouldBe(HeaderFault.Length);
    }

    [Fact]
    public void Every_refusal_routine_state_and_end_has_words()
    {
        Enum.GetValues<Routine>().Select(Words.Of).Distinct().Count().ShouldBe(5);
        Enum.GetValues<UnitState>().ShouldAllBe(s => Words.Of(s).Length > 3);
        Enum.GetValues<SideEnd>().Select(Words.Of).Distinct().Count().ShouldBe(Enum.GetValues<SideEnd>().Length);
        Enum.GetValues<Refusal>().ShouldAllBe(r => !CarLink.Refused((int)r).StartsWith("refused with", StringComparison.Ordinal));
        CarLink.Refused(0x55).ShouldBe("refused with 55");
    }

    [Fact]
    public void One_side_that_stays_while_the_other_is_back_is_told_from_one_that_nobody_knows()
    {
        RoutineEnded Of(RoutineStatus? status, SideEnd left, SideEnd right) => new(Guid.NewGuid(), status, left, right, null, "", [], null);
        Of(RoutineStatus.Failed, SideEnd.AtBackStop, SideEnd.NoMotion).Stays.ShouldBe(Side.Right);
        Of(RoutineStatus.Failed, SideEnd.OutOfTime, SideEnd.AtBackStop).Stays.ShouldBe(Side.Left);
        Of(RoutineStatus.Failed, SideEnd.Clamped, SideEnd.TravelLimit).Stays.ShouldBeNull();
        Of(RoutineStatus.Failed, SideEnd.Clamped, SideEnd.TravelLimit).Lost.ShouldBeTrue();
        Of(null, SideEnd.None, SideEnd.None).Lost.ShouldBeTrue("The link was lost.");
        Of(RoutineStatus.Done, SideEnd.Released, SideEnd.Released).Lost.ShouldBeFalse();
    }
}
