using System.Text.Json;
using Dapper;
using PatientPawl.Core;
using PatientPawl.Core.Fleet;

namespace PatientPawl.Data;

/// <summary>A page of the vehicles, those whose pads are soonest at their minimum first.</summary>
/// <param name="Vehicles">Their cards.</param>
/// <param name="More">True where others come after them.</param>
/// <param name="Unread">How many vehicles have moved on and were not read yet.</param>
public sealed record FleetPage(IReadOnlyList<FleetCard> Vehicles, bool More, int Unread);

/// <summary>What the lists of vehicles read: one row a vehicle, made anew after one of its jobs has moved on.</summary>
internal sealed class VehicleIndex(Database database)
{
    /// <summary>So many vehicles stand on a page.</summary>
    public const int PageLength = 50;

    // A page reads so many itself; the rest is read after the start, while it waits for nobody.
    private const int AtOnce = 20, MostDue = 200, MostWords = 6;

    private const string Soonest = "select card_json from vehicle_card indexed by vehicle_soonest where card_json is not null";

    // Behind every day that a workshop will see.
    private const string NoDay = "9999-12-31";

    /// <summary>Makes anew the cards of vehicles that have moved on; gives back how many it made.</summary>
    /// <param name="most">At most so many.</param>
    /// <param name="anew">Makes the card of a plate; null where no job tells of it.</param>
    public int Renew(int most, Func<string, FleetCard?> anew)
    {
        var moved = database.Read(c =>
            c.Query<(string Plate, long Times)>("select plate, times from vehicle_moved limit @most", new { most }).ToList());
        foreach (var (plate, times) in moved) Keep(plate, times, anew(plate));
        return moved.Count;
    }

    /// <summary>A page of the vehicles.</summary>
    /// <param name="search">Words, each found anywhere in plate, VIN, make, model or use; empty finds all.</param>
    /// <param name="skip">How many come before the page.</param>
    /// <param name="anew">Makes the card of a plate.</param>
    public FleetPage Page(string search, int skip, Func<string, FleetCard?> anew)
    {
        Renew(AtOnce, anew);
        var words = search.ToLowerInvariant().Split(' ', StringSplitOptions.RemoveEmptyEntries).Take(MostWords)
            .Select((w, i) => (Name: $"w{i}", Word: w)).ToArray();
        DynamicParameters of = new(new { skip, limit = PageLength + 1 });
        foreach (var (name, word) in words) of.Add(name, word);
        var found = string.Concat(words.Select(w => $" and instr(words, @{w.Name}) > 0"));
        var rows = database.Read(c => c.Query<string>($"{Soonest}{found} order by pads_due, plate limit @limit offset @skip", of).ToList());
        var unread = database.Read(c => c.ExecuteScalar<int>("select count(*) from vehicle_moved"));
        return new([.. rows.Take(PageLength).Select(Read)], rows.Count > PageLength, unread);
    }

    /// <summary>Every vehicle, in the order of the pages.</summary>
    /// <param name="anew">Makes the card of a plate.</param>
    public IReadOnlyList<FleetCard> All(Func<string, FleetCard?> anew)
    {
        RenewAll(anew, CancellationToken.None);
        return [.. database.Read(c => c.Query<string>($"{Soonest} order by pads_due, plate").ToList()).Select(Read)];
    }

    /// <summary>Makes anew the cards of all vehicles that have moved on, a page after the other.</summary>
    /// <param name="anew">Makes the card of a plate.</param>
    /// <param name="stopping">A server that stops waits for no more than a page.</param>
    public void RenewAll(Func<string, FleetCard?> anew, CancellationToken stopping)
    {
        var left = true;
        while (left && !stopping.IsCancellationRequested) left = Renew(PageLength, anew) > 0;
    }

    /// <summary>Vehicles of which something comes due that was not ticked off, the soonest first; and whether there are more.</summary>
    /// <param name="from">The first day.</param>
    /// <param name="to">The last.</param>
    /// <param name="anew">Makes the card of a plate.</param>
    public (IReadOnlyList<FleetCard> Vehicles, bool More) Due(DateOnly from, DateOnly to, Func<string, FleetCard?> anew)
    {
        Renew(AtOnce, anew);
        // The days stand in their index: it is read from the first on, and only as far as it takes.
        const int Far = 4 * MostDue;
        var days = database.Read(c => c.Query<string>("""
            select plate from vehicle_due d where due between @from and @to and not exists(select 1 from reminder_done r where r.id = d.id)
            order by due, plate limit @Far
            """, new { from = Figure.Date(from), to = Figure.Date(to), Far }).ToList());
        var plates = days.Distinct().ToArray();
        var cards = database.Read(c => c.Query<(string Plate, string Card)>(
            "select plate, card_json from vehicle_card where plate in @plates and card_json is not null",
                new { plates = plates.Take(MostDue) })
            .ToDictionary(r => r.Plate, r => r.Card, StringComparer.Ordinal));
        return ([.. plates.Where(cards.ContainsKey).Select(p => Read(cards[p]))], plates.Length > MostDue || days.Count == Far);
    }

    private void Keep(string plate, long times, FleetCard? card)
    {
        // What comes due of it does not depend on the day that asks, only whether it is due by then.
        var outlook = card is null ? null : Outlook.Of(card, card.Visits.Max(v => v.On));
        var v = card?.Vehicle;
        var row = new
        {
            plate,
            json = card is null ? null : JsonSerializer.Serialize(card, PawlJson.Options),
            padsDue = outlook?.PadsDue is { } due ? Figure.Date(due) : NoDay,
            words = v is null ? ""
                : $"{plate} {plate.Replace(" ", "", StringComparison.Ordinal)} {v.Vin} {v.Make} {v.Model} {v.Use}".ToLowerInvariant(),
            times,
        };
        database.Write((c, t) =>
        {
            c.Execute("""
                insert into vehicle_card(plate, card_json, pads_due, words) values(@plate, @json, @padsDue, @words)
                on conflict(plate) do update set card_json = @json, pads_due = @padsDue, words = @words;
                delete from vehicle_due where plate = @plate;
                """, row, t);
            foreach (var reminder in outlook?.Reminders ?? [])
                c.Execute("insert into vehicle_due(id, plate, due) values(@Id, @plate, @due) on conflict(id) do update set due = @due",
                    new { reminder.Id, plate, due = Figure.Date(reminder.Due) }, t);
            // Where it moved on meanwhile it stays to be made again.
            return c.Execute("delete from vehicle_moved where plate = @plate and times = @times", row, t);
        });
    }

    private static FleetCard Read(string json) =>
        JsonSerializer.Deserialize<FleetCard>(json, PawlJson.Options) ?? throw new JsonException("a vehicle's card is null");
}
