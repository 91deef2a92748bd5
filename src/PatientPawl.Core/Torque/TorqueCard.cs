using PatientPawl.Core.Planning;
using PatientPawl.Core.Reasoning;
using PatientPawl.Core.Vehicles;
using PatientPawl.Core.Workshop;
using TorqueQuantity = UnitsNet.Torque;

namespace PatientPawl.Core.Torque;

/// <summary>One fastener of a torque card.</summary>
/// <param name="Line">The fastener.</param>
/// <param name="Name">Its name.</param>
/// <param name="When">When it is reached, in words.</param>
/// <param name="SeatAt">Where it is seated first; null where one pull is enough.</param>
/// <param name="WrenchId">The smallest wrench of the workshop that serves; null when none does.</param>
/// <param name="Set">Its setting, in line and with no crowfoot.</param>
/// <param name="Questions">What is odd about the figure.</param>
public sealed record TorqueCardLine(TorqueLine Line, string Name, string When, TorqueQuantity? SeatAt, string? WrenchId, TorqueSet? Set, IReadOnlyList<string> Questions);

/// <summary>Every fastener of a job on one card.</summary>
/// <param name="Lines">In the order of the plan.</param>
/// <param name="Lacks">Fasteners the plan tightens and the sheet has no figure for.</param>
/// <param name="LeadSigns">True when the house rule has the lead sign too.</param>
/// <param name="Studs">What the house rule says of wheel studs.</param>
/// <param name="Reasons">The reasoning.</param>
public sealed record TorqueCard(IReadOnlyList<TorqueCardLine> Lines, IReadOnlyList<string> Lacks, bool LeadSigns, string Studs, Reasons Reasons) : IReasoned;

/// <summary>Makes torque cards.</summary>
[Engine]
public static class TorqueCards
{
    /// <summary>The card of a plan.</summary>
    public static TorqueCard Make(PlanSetup setup, SpecSheet sheet, IReadOnlyList<StepKey> steps, IReadOnlyList<Wrench> wrenches, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(setup);
        ArgumentNullException.ThrowIfNull(sheet);
        ArgumentNullException.ThrowIfNull(steps);
        ArgumentNullException.ThrowIfNull(wrenches);
        var trail = new Trail("TorqueCards.Make");
        List<TorqueCardLine> lines = [];
        List<string> lacks = [];
        foreach (var type in steps.Select(s => StepCatalogue.Find(s.StepId)).OfType<StepType>().Where(t => t.Torques is not null).DistinctBy(t => t.Torques))
        {
            var role = type.Torques!.Value;
            if (sheet.Line(role) is not { } line)
            {
                lacks.Add($"{type.Name}: enter the maker's figure when it is signed.");
                continue;
            }

            var sets = wrenches.Where(w => w.CalibratedUntil >= today).OrderBy(w => w.Maximum.NewtonMeters).Select(w => (Wrench: w, Set: TorqueSetting.Compute(line, w, null, today))).ToArray();
            var best = sets.FirstOrDefault(s => s.Set.WrenchServes);
            var seat = line.PerCorner >= 3 ? TorqueQuantity.FromNewtonMeters(line.Wanted.NewtonMeters / 2) : (TorqueQuantity?)null;
            var questions = (best.Set ?? sets.FirstOrDefault().Set)?.Questions.Select(q => q.Says).ToArray() ?? [];
            lines.Add(new(line, type.Name, type.Because, seat, best.Wrench?.Id, best.Set, best.Set is null ? ["No wrench of the workshop reaches this figure in date.", .. questions] : questions));
            trail.Input(type.Name, $"{Figure.Of(line.Wanted.NewtonMeters, 1)} N m", "spec-sheet");
        }

        var studs = setup.Rules.Studs == StudsRule.Dry ? "Wheel studs and nuts dry." : "Wheel studs lightly lubricated: a dry figure overloads them by about a third; use the maker's reduced figure.";
        trail.Conclude($"{lines.Count} kinds of fastener.");
        return new(lines, lacks, setup.Rules.SignOff == SignOffRule.LeadAlso, studs, trail.Done());
    }
}
