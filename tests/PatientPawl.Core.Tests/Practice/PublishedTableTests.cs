using System.Text;
using PatientPawl.Core.Identification;
using PatientPawl.Core.Practice;

namespace PatientPawl.Core.Tests.Practice;

/// <summary>The page that tells which scenario holds which trap is made from the set itself.</summary>
public class PublishedTableTests
{
    [Fact]
    public void The_published_table_is_the_one_that_is_played()
    {
        var path = Path.Combine(ArchitectureTests.Repository(), "docs", "practice.md");
        var made = Page();
        if (Environment.GetEnvironmentVariable("PAWL_UPDATE") is not null) File.WriteAllText(path, made);
        File.ReadAllText(path).ShouldBe(made, "PAWL_UPDATE=1 makes docs/practice.md anew.");
    }

    private static string Page()
    {
        var page = new StringBuilder("""
            # Practice

            Made from the scenarios themselves; a test keeps it so. Every pair of scenario and trap is played by somebody who falls into it, and caught there;
            every scenario by somebody who follows the plan, looks at everything and tells it, without harm (`ScenarioTests`; `PAWL_SEEDS` plays each as often as
            is asked).

            ## Scenarios

            | Scenario | Brake | About | Traps |
            |---|---|---|---|

            """);
        foreach (var s in ScenarioSet.All)
            page.AppendLine($"| {s.Title} (`{s.Id}`) | {s.Truth.Left.Architecture.Words()} | {string.Join(", ", s.Trains.Select(t => t.Words().ToLowerInvariant()))} | {string.Join(", ", s.Traps.Select(t => (int)t + 1))} |");
        page.AppendLine().AppendLine("## Traps").AppendLine().AppendLine("Common practice, no source.").AppendLine();
        page.AppendLine("| | What the car is like | What is done | What comes of it | What to take from it |")
            .AppendLine("|---|---|---|---|---|");
        foreach (var t in TrapCatalogue.All) page.AppendLine($"| {(int)t.Id + 1} | {t.State} | {t.WrongAction} | {t.Consequence} | {t.Lesson} |");
        page.AppendLine().AppendLine("""
            ## How a verdict is judged

            *Right*: with the engine, and true. *Right by luck*: true, while the engine said too close or not yet enough. *Honest error*: with the engine, and the
            truth differs. *Wrong*: against the engine, or against both.
            """);
        return page.ToString().ReplaceLineEndings("\n");
    }
}
