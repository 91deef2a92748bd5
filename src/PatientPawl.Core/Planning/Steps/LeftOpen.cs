namespace PatientPawl.Core.Planning.Steps;

/// <summary>
/// The lead's word that a defect stays as it is: one step for each, so that a word names one finding; and the tag of a car that is not to be
/// driven because of it.
/// </summary>
internal static class LeftOpen
{
    public static IReadOnlyList<StepType> All { get; } =
    [
        .. Defects.All.Where(d => d.LeftBy != LeftBy.Anyone).Select(d => new StepType(d.LeftOpenId, $"Left open: {Phrase.Small(d.Name)}", Stage.Judge,
            d.Asked.PerCorner ? Lane.Corner : Lane.Car, Place.Bench, 2, "What is not put right is left by one name and for one reason, and the driver reads it.")
        {
            Applies = d.CanBeLeft,
            Needs = [d.Asked.Is(Asked.Due)],
            Makes = [d.Asked.To(Asked.LeftOpen)],
            LeadOnly = true,
            How = (d.Forbids & Forbidden.Road) != 0
                ? "Look at it yourself. It goes back only to close up; the car is tagged and not driven on the road."
                : "Look at it yourself. It stands on the customer's sheet as it is.",
        }),
        new("tagged-off-road", "Tag: not to be driven", Stage.Record, Lane.Car, Place.Bench, 2, "Who takes this car away has to know that it does not brake as it should.")
        {
            Applies = s => s.ClosesUp || s.InspectOnly,
            Needs = [Car.NoRoad.Is(Done.No), SomethingOffTheRoad([])],
            Makes = [Car.NoRoad.To(Done.Yes)],
            LeadOnly = true,
            Parts = ["tag: not to be driven"],
            How = "Tag on the wheel and on the key. Tell the driver, in person: it leaves on a trailer, or not at all.",
        },
        new("off-road-tag-off", "Tag off: it may drive", Stage.Close, Lane.Car, Place.Bench, 1, "What kept it off the road is put right.")
        {
            Needs = [Car.NoRoad.Is(Done.Yes), .. Defects.OffTheRoad.SelectMany(d => d.PutRight(orLeftOpen: false))],
            Makes = [Car.NoRoad.To(Done.No)],
            How = "Off the wheel and off the key.",
        },
    ];

    /// <summary>Something that keeps the car off the road is left open, and these hold.</summary>
    internal static Condition SomethingOffTheRoad(Requirement[] and) => Condition.Any(
        [.. Defects.OffTheRoad.SelectMany(d => d.Left()).Select(left => (Requirement[])[.. left, .. and])]).Saying("something left open that keeps it off the road");
}
