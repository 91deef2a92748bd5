using PatientPawl.Core.Identification;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Torque;

namespace PatientPawl.Core.Tests.Jobs;

/// <summary>What is fetched from the store: by scope, and by what was found.</summary>
public class PartsListTests
{
    private const string Pads = "Rear pad set", Rotors = "Two rear rotors", Shoes = "Parking shoe set with springs and pins", Bolts = "Single-use bolts, both sides";

    [Theory]
    [InlineData(Architecture.CableScrew, JobScope.Pads, Pads)]
    [InlineData(Architecture.MotorPush, JobScope.PadsAndRotors, Pads + "|" + Rotors)]
    [InlineData(Architecture.HatShoes, JobScope.Pads, Pads)]
    [InlineData(Architecture.HatShoes, JobScope.PadsAndRotors, Pads + "|" + Rotors)]
    [InlineData(Architecture.HatShoes, JobScope.Shoes, Shoes)]
    public void The_scope_says_what_is_renewed(Architecture architecture, JobScope scope, string parts) =>
        LayingOut.Parts(PlanSetup.For(architecture, scope)).ShouldBe(parts.Split('|'));

    [Fact]
    public void Nothing_is_fetched_for_a_brake_nobody_has_identified() => LayingOut.Parts(PlanSetup.For(null, JobScope.PadsAndRotors)).ShouldBeEmpty();

    [Fact]
    public void A_finding_adds_its_part_and_says_so()
    {
        var shoes = PlanSetup.For(Architecture.HatShoes, JobScope.Shoes);
        LayingOut.Parts(shoes with { PadsFound = true }).ShouldBe([Pads + ", added by a finding", Shoes]);
        LayingOut.Parts(shoes with { RotorFound = true }).ShouldBe([Pads + ", with the new rotors", Rotors + ", added by a finding", Shoes]);
        LayingOut.Parts(PlanSetup.For(Architecture.HatShoes, JobScope.PadsAndRotors) with { ShoesFound = true }).ShouldBe([Pads, Rotors, Shoes + ", added by a finding"]);
        // A hub face that is cleaned needs no part.
        LayingOut.Parts(PlanSetup.For(Architecture.CableScrew, JobScope.Pads) with { HubFound = true }).ShouldBe([Pads]);
    }

    [Fact]
    public void Single_use_bolts_are_fetched_where_they_come_out()
    {
        var setup = PlanSetup.For(Architecture.CableScrew, JobScope.Pads) with { SingleUse = [FastenerRole.Bracket] };
        LayingOut.Parts(setup).ShouldNotContain(Bolts);
        LayingOut.Parts(setup with { RotorFound = true }).ShouldContain(Bolts);
        LayingOut.Parts(setup with { SingleUse = [FastenerRole.SlidePin] }).ShouldContain(Bolts);
    }

    [Fact]
    public void A_vehicle_with_nothing_noted_has_no_history()
    {
        // Nothing noted yet: no guess is made which way loosens.
        var job = new Bench().Open();
        VehicleHistory.StarWheel([], Core.Side.Left).ShouldBeNull();
        VehicleHistory.StarWheel([job.State], Core.Side.Left).ShouldBeNull();
        VehicleHistory.PadWear([job.State]).ShouldBeEmpty("a job that measured nothing says nothing about wear");
    }
}
