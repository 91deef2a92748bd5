using System.Text.Json;
using Dapper;
using Microsoft.Data.Sqlite;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Practice;
using PatientPawl.Core.Torque;
using PatientPawl.Core.Vehicles;
using PatientPawl.Core.Workshop;

namespace PatientPawl.Data;

/// <summary>A technician who can sign in.</summary>
public sealed record Technician(Guid Id, string Name, bool IsLead, string PinHash)
{
    /// <summary>When they left; null while they work here.</summary>
    public DateTimeOffset? LeftAt { get; init; }
}

/// <summary>A vehicle of the library with the code of its sheet.</summary>
public sealed record KnownVehicle(Vehicle Vehicle, string SheetCode);

/// <summary>What a workshop owns beside its jobs: technicians, house rules, vehicles, spec sheets, wrenches.</summary>
public sealed class Library(Database database)
{
    // However often it was used: the next sign-in after this ends it.
    private const int LongestSessionDays = 30;

    // Who is asking is looked up with every request. The folder is this process's alone, so that what was read stays so until it is changed here.
    private readonly Lock _who = new();
    private readonly Dictionary<(string Session, string Technician), bool> _standing = [];
    private readonly Dictionary<string, Guid?> _with = new(StringComparer.Ordinal);
    private IReadOnlyList<Technician>? _people;

    public IReadOnlyList<Technician> Technicians()
    {
        lock (_who) return _people ??= ReadTechnicians();
    }

    private List<Technician> ReadTechnicians() => database.Read(c => c
        .Query<(string Id, string Name, long IsLead, string PinHash, string? LeftAt)>("select id, name, is_lead, pin_hash, left_at from technician order by name")
        .Select(r => new Technician(Guid.Parse(r.Id), r.Name, r.IsLead == 1, r.PinHash) { LeftAt = r.LeftAt is null ? null : DateTimeOffset.Parse(r.LeftAt, System.Globalization.CultureInfo.InvariantCulture) }).ToList());

    /// <summary>Adds a technician; false when the name is taken.</summary>
    public bool Add(Technician t, bool onlyWhenEmpty = false) => ChangePeople((c, x) =>
    {
        if (onlyWhenEmpty && c.ExecuteScalar<long>("select count(*) from technician", transaction: x) > 0) return false;
        return c.Execute("insert into technician(id, name, is_lead, pin_hash) values(@id, @name, @lead, @pin) on conflict do nothing",
            new { id = t.Id.ToString(), name = t.Name, lead = t.IsLead ? 1 : 0, pin = t.PinHash }, x) == 1;
    });

    /// <summary>Gives somebody another PIN, and ends every session they have.</summary>
    public void SetPin(Guid id, string pinHash) => ChangePeople((c, x) =>
    {
        EndSessions(c, x, id);
        return c.Execute("update technician set pin_hash = @pinHash where id = @id", new { id = id.ToString(), pinHash }, x);
    });

    /// <summary>Somebody has left: their name stays in every record, and signs in no more.</summary>
    public void Leave(Guid id, DateTimeOffset at) => ChangePeople((c, x) =>
    {
        EndSessions(c, x, id);
        return c.Execute("update technician set left_at = @at where id = @id", new { id = id.ToString(), at = at.ToString("O") }, x);
    });

    /// <summary>Begins a session; its id goes into the cookie.</summary>
    public Guid BeginSession(Guid technicianId, DateTimeOffset at)
    {
        var id = Guid.NewGuid();
        ChangePeople((c, x) =>
        {
            c.Execute("delete from session where started_at < @oldest", new { oldest = at.AddDays(-LongestSessionDays).ToUniversalTime().ToString("O") }, x);
            return c.Execute("insert into session(id, technician_id, started_at) values(@id, @technician, @at)", new { id = id.ToString(), technician = technicianId.ToString(), at = at.ToUniversalTime().ToString("O") }, x);
        });
        return id;
    }

    /// <summary>True while a session stands, and belongs to that person.</summary>
    public bool SessionStands(string? id, string? technicianId)
    {
        if (id is null || technicianId is null) return false;
        lock (_who)
        {
            if (_standing.TryGetValue((id, technicianId), out var stands)) return stands;
            // Made-up ids are not remembered for ever.
            if (_standing.Count > 1000) _standing.Clear();
            return _standing[(id, technicianId)] = ReadSession(id, technicianId);
        }
    }

    private bool ReadSession(string id, string technicianId) => database.Read(c => c.ExecuteScalar<long>("select count(*) from session where id = @id and technician_id = @technicianId", new { id, technicianId })) == 1;

    // What was remembered goes once the change is stored; who read before that has remembered it by then.
    private T ChangePeople<T>(Func<SqliteConnection, SqliteTransaction, T> change) => database.Write(change, _ =>
    {
        lock (_who)
        {
            _people = null;
            _standing.Clear();
            _with.Clear();
        }
    });

    /// <summary>Whoever is signed in on the same device with the session's own; null when nobody is.</summary>
    public Guid? SignedInWith(string session)
    {
        lock (_who)
        {
            if (_with.TryGetValue(session, out var with)) return with;
            if (_with.Count > 1000) _with.Clear();
            return _with[session] = database.Read(c => c.ExecuteScalar<string?>("select technician_id from session_with where session_id = @session", new { session })) is { } id ? Guid.Parse(id) : null;
        }
    }

    /// <summary>Signs a second person in on the device of a session; null signs whoever it was out.</summary>
    public void SignInWith(string session, Guid? technicianId) => ChangePeople((c, x) => technicianId is { } id
        ? c.Execute("insert into session_with(session_id, technician_id) values(@session, @id) on conflict(session_id) do update set technician_id = @id", new { session, id = id.ToString() }, x)
        : c.Execute("delete from session_with where session_id = @session", new { session }, x));

    private static void EndSessions(SqliteConnection c, SqliteTransaction x, Guid technicianId)
    {
        var id = technicianId.ToString();
        c.Execute("delete from session where technician_id = @id; delete from session_with where technician_id = @id", new { id }, x);
    }

    /// <summary>Ends a session.</summary>
    public void EndSession(string id) => ChangePeople((c, x) => c.Execute("delete from session where id = @id", new { id }, x));

    /// <summary>What the workshop is called, until somebody names it.</summary>
    public string WorkshopName => Setting(NameSetting) ?? "Your workshop";

    /// <summary>Names the workshop.</summary>
    public void Name(string workshop) => SetSetting(NameSetting, workshop);

    private const string NameSetting = "workshop-name";

    public string? Setting(string key) => database.Read(c => c.ExecuteScalar<string?>("select value from setting where key = @key", new { key }));

    public void SetSetting(string key, string value) => database.Write((c, x) =>
        c.Execute("insert into setting(key, value) values(@key, @value) on conflict(key) do update set value = @value", new { key, value }, x));

    /// <summary>Reminders that were ticked off.</summary>
    public IReadOnlySet<string> DoneReminders() => database.Read(c => c.Query<string>("select id from reminder_done").ToHashSet(StringComparer.Ordinal));

    /// <summary>Ticks a reminder off.</summary>
    public void TickOff(string id, string by, DateTimeOffset at) => database.Write((c, x) =>
        c.Execute("insert into reminder_done(id, by, at) values(@id, @by, @at) on conflict(id) do nothing", new { id, by, at = at.ToString("O") }, x));

    public HouseRules HouseRules => Setting("house-rules") is { } json ? JsonSerializer.Deserialize<HouseRules>(json, PawlJson.Options)! : HouseRules.Default;

    public void SetHouseRules(HouseRules rules) => SetSetting("house-rules", JsonSerializer.Serialize(rules, PawlJson.Options));

    public IReadOnlyList<SpecSheet> Sheets() => All<SpecSheet>("select sheet_json from spec_sheet order by code");

    public SpecSheet? Sheet(string code) => Sheets().FirstOrDefault(s => s.Code == code);

    public void Save(SpecSheet sheet) => database.Write((c, x) =>
        c.Execute("insert into spec_sheet(code, sheet_json) values(@code, @json) on conflict(code) do update set sheet_json = @json", new { code = sheet.Code, json = JsonSerializer.Serialize(sheet, PawlJson.Options) }, x));

    public IReadOnlyList<KnownVehicle> Vehicles() => database.Read(c => c.Query<(string Json, string Code)>("select vehicle_json, sheet_code from vehicle order by plate")
        .Select(r => new KnownVehicle(JsonSerializer.Deserialize<Vehicle>(r.Json, PawlJson.Options)!, r.Code)).ToList());

    public void Save(KnownVehicle known) => database.Write((c, x) =>
        c.Execute("insert into vehicle(plate, vehicle_json, sheet_code) values(@plate, @json, @code) on conflict(plate) do update set vehicle_json = @json, sheet_code = @code",
            new { plate = known.Vehicle.Plate, json = JsonSerializer.Serialize(known.Vehicle, PawlJson.Options), code = known.SheetCode }, x));

    public IReadOnlyList<Wrench> Wrenches() => All<Wrench>("select wrench_json from wrench order by id");

    public void Save(Wrench wrench) => database.Write((c, x) =>
        c.Execute("insert into wrench(id, wrench_json) values(@id, @json) on conflict(id) do update set wrench_json = @json", new { id = wrench.Id, json = JsonSerializer.Serialize(wrench, PawlJson.Options) }, x));

    /// <summary>Takes a wrench off the list; what was torqued with it keeps it.</summary>
    public void RemoveWrench(string id) => database.Write((c, x) => c.Execute("delete from wrench_certificate where wrench_id = @id; delete from wrench where id = @id", new { id }, x));

    /// <summary>The certificates of a wrench, the oldest first.</summary>
    public IReadOnlyList<WrenchCertificate> Certificates(string wrenchId) => database.Read(c =>
        c.Query<string>("select certificate_json from wrench_certificate where wrench_id = @wrenchId order by on_day", new { wrenchId })
            .Select(json => JsonSerializer.Deserialize<WrenchCertificate>(json, PawlJson.Options)).OfType<WrenchCertificate>().ToList());

    /// <summary>Keeps a wrench with a new certificate. The day is one: a second of the same day takes its place.</summary>
    /// <param name="wrench">The wrench as it is from then on.</param>
    /// <param name="certificate">The certificate.</param>
    /// <param name="file">The laboratory's paper; null where there is none.</param>
    public void Save(Wrench wrench, WrenchCertificate certificate, byte[]? file) => database.Write((c, x) =>
    {
        c.Execute("""
            insert into wrench_certificate(wrench_id, on_day, certificate_json, file) values(@id, @on, @json, @file)
            on conflict(wrench_id, on_day) do update set certificate_json = @json, file = @file
            """,
            new { id = wrench.Id, on = Core.Figure.Date(certificate.On), json = JsonSerializer.Serialize(certificate with { HasFile = file is not null }, PawlJson.Options), file }, x);
        return c.Execute("update wrench set wrench_json = @json where id = @id", new { id = wrench.Id, json = JsonSerializer.Serialize(wrench, PawlJson.Options) }, x);
    });

    /// <summary>The laboratory's paper of a certificate; null where none is kept.</summary>
    public byte[]? CertificateFile(string wrenchId, DateOnly on) => database.Read(c =>
        c.ExecuteScalar<byte[]?>("select file from wrench_certificate where wrench_id = @wrenchId and on_day = @on", new { wrenchId, on = Core.Figure.Date(on) }));

    /// <summary>The workshop's instruments; a workshop that keeps no list of its own has the ordinary ones.</summary>
    public IReadOnlyList<Instrument> Instruments() => All<Instrument>("select instrument_json from instrument order by id") is { Count: > 0 } own ? own : InstrumentCatalogue.Defaults;

    /// <summary>Replaces the list. Whole, so that taking one off the ordinary ones is kept too.</summary>
    public void SetInstruments(IReadOnlyList<Instrument> instruments) => database.Write((c, x) =>
    {
        c.Execute("delete from instrument", transaction: x);
        foreach (var i in instruments)
            c.Execute("insert into instrument(id, instrument_json) values(@id, @json)", new { id = i.Id, json = JsonSerializer.Serialize(i, PawlJson.Options) }, x);
        return instruments.Count;
    });

    private List<T> All<T>(string sql) => database.Read(c => c.Query<string>(sql).Select(j => JsonSerializer.Deserialize<T>(j, PawlJson.Options)!).ToList());

    /// <summary>Where somebody's practice cards lie.</summary>
    public IReadOnlyList<CardBox> Boxes(Guid technicianId) => database.Read(c => c
        .Query<(string Id, long Box, string Due, long Right, long Wrong)>("select card_id, box, due, right_times, wrong_times from card_box where technician_id = @id", new { id = technicianId.ToString() })
        .Select(r => new CardBox(r.Id, (int)r.Box, Day(r.Due), (int)r.Right, (int)r.Wrong)).ToList());

    /// <summary>Puts a card of somebody where it lies now; an answer that was told before is told once.</summary>
    public void Put(Guid technicianId, string cardId, bool right, DateTimeOffset at) => database.Write((c, t) =>
    {
        var of = new { id = technicianId.ToString(), card = cardId, at = at.ToUniversalTime().ToString("O") };
        var row = c.QueryFirstOrDefault<(long Box, string Due, long Right, long Wrong, string At)?>("select box, due, right_times, wrong_times, answered_at from card_box where technician_id = @id and card_id = @card", of, t);
        if (row is { } told && string.CompareOrdinal(told.At, of.at) >= 0) return 0;
        var before = row is { } r ? new CardBox(cardId, (int)r.Box, Day(r.Due), (int)r.Right, (int)r.Wrong) : null;
        var now = LeitnerBoxes.After(cardId, before, right, DateOnly.FromDateTime(at.DateTime));
        return c.Execute("""
            insert into card_box(technician_id, card_id, box, due, right_times, wrong_times, answered_at) values(@id, @card, @box, @due, @right, @wrong, @at)
            on conflict(technician_id, card_id) do update set box = @box, due = @due, right_times = @right, wrong_times = @wrong, answered_at = @at
            """, new { of.id, of.card, of.at, box = now.Box, due = Core.Figure.Date(now.Due), right = now.RightTimes, wrong = now.WrongTimes }, t);
    });

    /// <summary>Keeps what somebody showed in a scenario; the latest day counts.</summary>
    public void Show(Guid technicianId, IReadOnlyList<Competence> shown, string scenarioId, DateOnly on) => database.Write((c, t) =>
    {
        foreach (var competence in shown)
        {
            c.Execute("""
                insert into shown(technician_id, competence, scenario_id, on_day) values(@id, @competence, @scenario, @on)
                on conflict(technician_id, competence, scenario_id) do update set on_day = max(on_day, excluded.on_day)
                """, new { id = technicianId.ToString(), competence = competence.ToString(), scenario = scenarioId, on = Core.Figure.Date(on) }, t);
        }

        return 0;
    });

    /// <summary>What everybody showed.</summary>
    public IReadOnlyList<ShownOnce> Shown() => database.Read(c => c.Query<(string Id, string Competence, string Scenario, string On)>("select technician_id, competence, scenario_id, on_day from shown")
        .Select(r => new ShownOnce(Guid.Parse(r.Id), Enum.Parse<Competence>(r.Competence), r.Scenario, Day(r.On))).ToList());

    /// <summary>The workshop's own scenarios.</summary>
    public IReadOnlyList<Scenario> Scenarios() => All<Scenario>("select scenario_json from scenario order by id");

    /// <summary>Keeps a scenario of the workshop's own.</summary>
    public void Save(Scenario scenario) => database.Write((c, x) =>
        c.Execute("insert into scenario(id, scenario_json) values(@id, @json) on conflict(id) do update set scenario_json = @json",
            new { id = scenario.Id, json = JsonSerializer.Serialize(scenario, PawlJson.Options) }, x));

    /// <summary>Removes a scenario; runs of it keep their copy. False where there is none.</summary>
    public bool RemoveScenario(string id) => database.Write((c, x) => c.Execute("delete from scenario where id = @id", new { id }, x)) > 0;

    private static DateOnly Day(string text) => DateOnly.Parse(text, System.Globalization.CultureInfo.InvariantCulture);
}
