namespace PatientPawl.Core.Practice;

/// <summary>A competence that a run showed.</summary>
/// <param name="TechnicianId">Who.</param>
/// <param name="Competence">Which.</param>
/// <param name="ScenarioId">In which scenario.</param>
/// <param name="On">The day.</param>
public sealed record ShownOnce(Guid TechnicianId, Competence Competence, string ScenarioId, DateOnly On);

/// <summary>A competence and whether somebody has shown it.</summary>
/// <param name="Competence">Which.</param>
/// <param name="Says">Its name.</param>
/// <param name="Scenarios">In how many different scenarios, within the year.</param>
/// <param name="IsShown">True with two of them.</param>
/// <param name="On">The latest day; null where there is none.</param>
public sealed record CompetenceCard(Competence Competence, string Says, int Scenarios, bool IsShown, DateOnly? On);

/// <summary>What somebody has shown: two different scenarios, alone, without harm, within twelve months. The figures are ours.</summary>
public static class Competences
{
    private const int Wanted = 2;
    private const int Months = 12;

    /// <summary>Every competence of one person.</summary>
    /// <param name="shown">What they showed, in any order.</param>
    /// <param name="today">The day.</param>
    public static IReadOnlyList<CompetenceCard> Of(IEnumerable<ShownOnce> shown, DateOnly today)
    {
        var counts = shown.Where(s => s.On > today.AddMonths(-Months)).ToLookup(s => s.Competence);
        return [.. Enum.GetValues<Competence>().Select(c =>
        {
            var scenarios = counts[c].Select(s => s.ScenarioId).Distinct().Count();
            return new CompetenceCard(c, c.Words(), scenarios, scenarios >= Wanted, counts[c].Select(s => (DateOnly?)s.On).Max());
        })];
    }

    /// <summary>The competence in words.</summary>
    public static string Words(this Competence competence) => competence switch
    {
        Competence.Identify => "Which brake it is",
        Competence.Retract => "Piston home",
        Competence.Shoes => "Shoes in the hat",
        Competence.Measure => "Measure and judge",
        Competence.Sequence => "Order of the work",
        Competence.Electric => "Electric brake",
        Competence.Torque => "Set the wrench",
        Competence.Fluid => "Fluid",
        Competence.Prove => "Prove the brake",
        _ => "Write it down",
    };
}
