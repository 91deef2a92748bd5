using PatientPawl.Core.Planning;

namespace PatientPawl.Core.Jobs;

/// <summary>What a job is to end in.</summary>
/// <param name="Goal">The goal.</param>
/// <param name="Says">In a few words.</param>
/// <param name="Reached">True once it is there.</param>
/// <param name="Then">What holds then.</param>
/// <param name="Leaves">True where the car is left for the night then.</param>
public sealed record GoalCard(JobGoal Goal, string Says, bool Reached, string Then, bool Leaves)
{
    /// <summary>What a job is to end in; while it is left, where it was left.</summary>
    public static GoalCard Of(JobState state)
    {
        ArgumentNullException.ThrowIfNull(state);
        var goal = state.Night?.Kind.Goal() ?? state.Setup.Goal;
        return new(goal, goal.Words(), state.Night is not null || Planner.GoalReached(state.Setup, state.Car), goal.WhenReached(), goal.IsNight());
    }
}

/// <summary>Something else that a job could end in, with what that takes from where it stands.</summary>
/// <param name="Goal">The goal.</param>
/// <param name="Says">In a few words.</param>
/// <param name="Present">True when the job goes there already.</param>
/// <param name="Steps">How many steps it takes.</param>
/// <param name="Minutes">Their minutes, for one technician.</param>
/// <param name="CannotBeMet">What no order can reach, in words; empty when it can be reached.</param>
public sealed record GoalChoice(JobGoal Goal, string Says, bool Present, int Steps, int Minutes, IReadOnlyList<string> CannotBeMet);

/// <summary>The goals that a job can be given at any moment.</summary>
public static class GoalChoices
{
    /// <summary>Every goal, in order.</summary>
    public static IReadOnlyList<GoalChoice> Of(JobState state)
    {
        ArgumentNullException.ThrowIfNull(state);
        return [.. Enum.GetValues<JobGoal>().Select(goal =>
        {
            var present = goal == state.Setup.Goal;
            var plan = Planner.Make(state.Setup with { Goal = goal }, state.Car);
            return new GoalChoice(goal, goal.Words(), present, plan.Steps.Count, state.Times.Minutes(plan.Steps), plan.CannotBeMet);
        })];
    }
}
