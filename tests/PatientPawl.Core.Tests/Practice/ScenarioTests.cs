using PatientPawl.Core.Identification;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Practice;
using PatientPawl.Core.Retraction;

namespace PatientPawl.Core.Tests.Practice;

/// <summary>Every scenario played by somebody who does everything right, by somebody who falls into its traps, and by somebody
/// careless.</summary>
public class ScenarioTests
{
    // PAWL_SEEDS plays each scenario as often as is asked, 200 by hand; the usual run has time for one.
    private static readonly int Seeds = int.TryParse(Environment.GetEnvironmentVariable("PAWL_SEEDS"), out var asked) ? Math.Max(asked, 1)
        : 1;

    public static TheoryData<string> Ids() => [.. ScenarioSet.All.Select(s => s.Id)];

    [Fact]
    public void There_are_twenty_scenarios_at_least_every_brake_is_in_them_and_every_trap()
    {
        ScenarioSet.All.Count.ShouldBeGreaterThanOrEqualTo(20);
        ScenarioSet.All.Select(s => s.Id).ShouldBeUnique();
        ScenarioSet.All.Select(s => s.Truth.Left.Architecture).Distinct().Order().ShouldBe(Enum.GetValues<Architecture>());
        ScenarioSet.All.SelectMany(s => s.Traps).Distinct().Order().ShouldBe(Enum.GetValues<TrapId>());
        ScenarioSet.All.SelectMany(s => s.Trains).Distinct().Order().ShouldBe(Enum.GetValues<Competence>());
        TrapCatalogue.All.Select(t => t.Id).ShouldBe(Enum.GetValues<TrapId>());
    }

    [Theory]
    [MemberData(nameof(Ids))]
    public void Who_follows_the_plan_and_looks_at_everything_does_no_harm_misses_nothing_and_shows_what_it_is_about(string id)
    {
        var scenario = ScenarioSet.Find(id)!;
        for (var seed = 1; seed <= Seeds; seed++)
        {
            var debrief = Debrief.Of(new Player(scenario, seed).ToTheEnd().State);
            debrief.Lines.Where(l =>
                l.Mark is DebriefMark.Harm or DebriefMark.Missed or DebriefMark.Refused or DebriefMark.Wrong or DebriefMark.RightByLuck)
                .Select(l => $"{l.Mark}: {l.What}: {l.Says} {l.Better}").ShouldBeEmpty($"{id}, seed {seed}");
            debrief.Finished.ShouldBeTrue(id);
            debrief.Shown.Select(s => s.Competence).ShouldBe(scenario.Trains, id);
        }
    }

    public static TheoryData<string, TrapId> Table()
    {
        var table = new TheoryData<string, TrapId>();
        foreach (var scenario in ScenarioSet.All) foreach (var trap in scenario.Traps) table.Add(scenario.Id, trap);
        return table;
    }

    [Theory]
    [MemberData(nameof(Table))]
    public void Who_falls_into_a_trap_is_caught_at_it(string id, TrapId trap)
    {
        var scenario = ScenarioSet.Find(id)!;
        var player = trap switch
        {
            TrapId.ClampOnScrew => Answering("piston-home", _ => "push"),
            TrapId.NotchedMotor => Answering("piston-home", _ => "turn-clockwise"),
            TrapId.StarWheelWrongWay => Answering("star-wheel-backed", k => scenario.Truth.At(k.Side!.Value).StarLoosensUp ? "down" : "up"),
            TrapId.WithinDoubt => Answering("shoes-measured", _ => "inside", "drum-gauge"),
            TrapId.HotDrum => new(scenario, 1) { Cold = true },
            TrapId.UnitSlip => Answering("torqued", _ => "unit"),
            TrapId.OthersFigure => Answering("torqued", _ => "others"),
            TrapId.CrowfootForgotten => Answering("torqued", _ => "as-written"),
            TrapId.TightCable or TrapId.Overflows => Picking("piston-home"),
            TrapId.ClosedCaliperOff => Picking("service-closed", "first-apply"),
            TrapId.PedalNotPumped => Picking("test-driven"),
            TrapId.BracketBeforeShoes => Picking("bracket-on", "fixed-caliper-on"),
            TrapId.ScrewForgotten => Picking("screws-cracked-brake"),
            TrapId.WeakBattery => Picking("service-entered"),
            TrapId.WokenByKey => Picking("ignition-on", "ignition-on-again", "key-near"),
            _ => new(scenario, 1) { Tells = false },
        };
        if (trap == TrapId.WokenByKey) OffBeforeService(player);
        if (trap == TrapId.NothingRecorded) player.Until("wheel-off", Side.Left).Do(PracticeRules.End);
        else player.ToTheEnd(unless: () => Debrief.Of(player.State).Traps.Contains(trap));
        Debrief.Of(player.State).Traps.ShouldContain(trap, string.Join("\n",
            Debrief.Of(player.State).Lines.Where(l => l.Mark != DebriefMark.Done)));

        Player Answering(string step, Func<StepKey, string> says, string drumGauge = "bore-micrometer") => new(scenario, 1)
        {
            DrumGauge = drumGauge,
            Says = (key, question) => key.StepId.EndsWith(step, StringComparison.Ordinal) && question.Options.Any(o => o.Id == says(key))
                ? says(key) : null,
        };

        Player Picking(params string[] steps) => new(scenario, 1)
        {
            Instead = (p, _) =>
            {
                foreach (var key in CompiledCatalogue.For(p.State.Setup).Steps.Select(s => s.Key).Where(k => steps.Contains(k.StepId)))
                {
                    // Each is tried where the rules refuse it; what may be done is left to the plan.
                    if (PracticeRules.Pick(p.State, key) is { } tried && p.World.Happenings.All(h => h.Trap != trap)) p.Do(_ => tried);
                }

                return false;
            },
        };

        void OffBeforeService(Player p)
        {
            p.Until("wheel-off", Side.Right);
            p.Do(s => JobRules.OutOfOrder(s, new ClickOn(new("caliper-off", Side.Left), [], [], null, null, "in a hurry"),
                new(Core.Measuring.InstrumentCatalogue.Defaults, new(2026, 11, 25))));
        }
    }

    [Fact]
    public void Who_is_careless_never_breaks_it_and_every_harm_says_what_happened()
    {
        var harms = 0;
        foreach (var scenario in ScenarioSet.All)
        {
            var random = new Random(scenario.Id.Length);
            var player = new Player(scenario, 3)
            {
                Tells = false,
                Says = (_, question) =>
                question.Options[random.Next(question.Options.Count)].Id
            };
            for (var i = 0; i < 60 && !player.State.HandedOver; i++)
            {
                var keys = CompiledCatalogue.For(player.State.Setup).Steps;
                var key = keys[random.Next(keys.Length)].Key;
                if (random.Next(3) == 0 && PracticeRules.Pick(player.State, key) is { } tried) player.Do(_ => tried);
                else if (RunSheets.Of(player.State).Now is { } now) player.Try(now);
            }

            player.Do(PracticeRules.End);
            var debrief = Debrief.Of(player.State);
            RunSummary.Of(player.State).Harms.ShouldBe(debrief.Lines.Count(l => l.Mark == DebriefMark.Harm));
            debrief.Lines.Where(l => l.Mark is DebriefMark.Harm or DebriefMark.Refused or DebriefMark.Missed)
                .ShouldAllBe(l => l.Says.Length > 10);
            if (scenario.Traps.Count > 0) debrief.Shown.ShouldBeEmpty(scenario.Id);
            // What was told as harm is what the car tells, each at an event that did it.
            player.World.Happenings.ShouldAllBe(h => h.Seq >= 1 && h.Seq <= player.State.Version);
            harms += player.World.Happenings.Count;
        }

        harms.ShouldBeGreaterThan(ScenarioSet.All.Count);
    }

    [Fact]
    public void A_run_that_was_ended_takes_nothing_more_and_one_with_anothers_hand_in_it_shows_nothing()
    {
        var player = new Player(ScenarioSet.Find("long-pedal")!, 1).Until("chocks-in").Do(PracticeRules.End);
        var now = RunSheets.Of(player.State).Now!;
        Should.Throw<NotAllowedException>(() => player.Step(now)).Message.ShouldBe("This run was ended.");
        Should.Throw<NotAllowedException>(() => player.Do(PracticeRules.Help)).Message.ShouldBe("This run was ended.");

        var alone = new Player(ScenarioSet.Find("no-piston")!, 1).ToTheEnd();
        Debrief.Of(alone.State).Shown.ShouldNotBeEmpty();
        var lent = alone.State.Log[3] with { TechnicianId = Guid.NewGuid() };
        Debrief.Of(JobState.Fold(alone.State.Log.SetItem(3, lent))).Shown.ShouldBeEmpty();
    }

    [Fact]
    public void The_same_run_is_the_same_world()
    {
        var scenario = ScenarioSet.Find("topped-up")!;
        var first = new Player(scenario, 9).Until("pads-in", Side.Left);
        var again = PracticeWorld.Of(scenario, first.State.Log, k => first.State.Times.Minutes([k]));
        again.LevelPercent.ShouldBe(first.World.LevelPercent);
        again.Minutes.ShouldBe(first.World.Minutes);
        string Readings(int seed) => string.Join(" ", new Player(scenario, seed)
            .Until("pads-in", Side.Left).State.Log.Select(e => e.Event).OfType<PracticeRead>().Select(r => r.Value));
        Readings(9).ShouldBe(Readings(9));
        Readings(9).ShouldNotBe(Readings(10));
    }

    [Theory]
    // Said, by the engine, and what is true: as handbooks of measuring have it, a verdict is judged by what was known and not by how it fell out.
    [InlineData("inside", Core.Measuring.Verdict.Inside, true, DebriefMark.Right)]
    [InlineData("inside", Core.Measuring.Verdict.Inside, false, DebriefMark.HonestError)]
    [InlineData("outside", Core.Measuring.Verdict.Outside, false, DebriefMark.Right)]
    [InlineData("outside", Core.Measuring.Verdict.Outside, true, DebriefMark.HonestError)]
    [InlineData("outside", Core.Measuring.Verdict.Inside, true, DebriefMark.Wrong)]
    [InlineData("too-close", Core.Measuring.Verdict.Inside, true, DebriefMark.Wrong)]
    [InlineData("too-close", Core.Measuring.Verdict.TooCloseToCall, true, DebriefMark.Right)]
    [InlineData("inside", Core.Measuring.Verdict.TooCloseToCall, true, DebriefMark.RightByLuck)]
    [InlineData("inside", Core.Measuring.Verdict.TooCloseToCall, false, DebriefMark.Wrong)]
    [InlineData("outside", Core.Measuring.Verdict.NotYetEnough, false, DebriefMark.RightByLuck)]
    public void A_verdict_is_judged_by_what_the_engine_knew(string said, Core.Measuring.Verdict engine, bool passes, DebriefMark mark) =>
        Debrief.Judge(said, engine, passes).ShouldBe(mark);
}
