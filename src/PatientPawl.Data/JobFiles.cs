using System.Text;
using System.Text.Json;
using PatientPawl.Core;
using PatientPawl.Core.Jobs;

namespace PatientPawl.Data;

/// <summary>The whole job in the open format.</summary>
public sealed record JobFile(string Format, int FormatVersion, Guid JobId, IReadOnlyList<JobFileEvent> Events, IReadOnlyList<Attachment>? Attachments = null);

/// <summary>One event of the open format: the content exactly as it was hashed, and the chain's hash after it.</summary>
public sealed record JobFileEvent(JsonElement Content, string Hash);

/// <summary>A photo or a trace in the open format: base64, found by the hash that an event names.</summary>
public sealed record Attachment(string Sha256, string Type, byte[] Content);

/// <summary>What reading a file in did.</summary>
public sealed record Imported(Guid JobId, int Added, int Events);

/// <summary>Jobs as files: written as they are stored, and read only when all of it holds.</summary>
public sealed class JobFiles(EventStore events, Photos photos)
{
    /// <summary>What a file says that it is.</summary>
    public const string Format = "patient-pawl-job";

    /// <summary>What a photo is.</summary>
    public const string PhotoType = "image/jpeg";

    /// <summary>The job's file. Stored bytes are written through untouched: whoever reads it can hash them again.</summary>
    public byte[] Write(Guid id)
    {
        var stored = events.Stored(id);
        var text = new StringBuilder().Append($"{{\"format\":\"{Format}\",\"formatVersion\":{EventStore.FormatVersion},\"jobId\":\"{id}\",\"events\":[");
        for (var i = 0; i < stored.Count; i++)
            text.Append(i == 0 ? "\n" : ",\n").Append("{\"content\":").Append(Encoding.UTF8.GetString(stored[i].Content)).Append(",\"hash\":\"").Append(stored[i].Hash).Append("\"}");
        text.Append("\n]");
        // Undone ones too: their events are in the log. One that is gone is told where the log is verified.
        var pictures = events.State(id).Log.Select(e => e.Event).OfType<INamesBytes>().DistinctBy(p => p.Sha256, StringComparer.Ordinal)
            .Select(n => (Sha: n.Sha256, Type: n.MediaType, Content: photos.Find(n.Sha256))).Where(p => p.Content is not null).ToList();
        for (var i = 0; i < pictures.Count; i++)
            text.Append(i == 0 ? ",\"attachments\":[\n" : ",\n").Append("{\"sha256\":\"").Append(pictures[i].Sha).Append("\",\"type\":\"").Append(pictures[i].Type).Append("\",\"content\":\"").Append(Convert.ToBase64String(pictures[i].Content!)).Append("\"}");
        return Encoding.UTF8.GetBytes(text.Append(pictures.Count > 0 ? "\n]}\n" : "}\n").ToString());
    }

    /// <summary>Reads a job in: a copy. The chain, every event and every photo are verified before anything is stored.</summary>
    /// <param name="file">The file.</param>
    /// <param name="by">Who reads it in.</param>
    /// <exception cref="InputException">The first thing that does not hold, by its event.</exception>
    /// <exception cref="JobIsHereException">The job lives here, and the file says otherwise.</exception>
    public Imported Read(JobFile file, string by)
    {
        ArgumentNullException.ThrowIfNull(file);
        var checks = new Checks();
        if (file.Format != Format) checks.Add("format", Figure.Shorten(file.Format), Format, "This is not a job file of this product.");
        if (file.FormatVersion is < EventStore.OldestFormat or > EventStore.FormatVersion) checks.Add("formatVersion", Figure.Of(file.FormatVersion), $"{EventStore.OldestFormat} to {EventStore.FormatVersion}", "That version of the format is not known here.");
        if (file.Events.Count is 0 or > 5000) checks.Add("events", Figure.Of(file.Events.Count), "1 to 5000", "A job has from 1 to 5000 events.");
        checks.ThrowIfAny();

        List<(byte[] Content, string Hash, RecordedEvent Event)> read = [];
        var previous = "";
        for (var i = 0; i < file.Events.Count; i++)
        {
            var seq = i + 1;
            var content = Encoding.UTF8.GetBytes(file.Events[i].Content.GetRawText());
            var hash = EventStore.Chain(previous, content);
            if (hash != file.Events[i].Hash) throw Broken(seq, Figure.Shorten(file.Events[i].Hash), "the hash of its contents and the one before", "does not match its hash: the file was changed or cut");
            StoredEvent e;
            try
            {
                e = EventStore.Stored(content);
                if (e.Event is JobOpened opened) JobRules.Place(opened.Bay, opened.OdometerKm).ThrowIfAny();
            }
            catch (InputException x)
            {
                throw Broken(seq, x.Errors[0].Value, x.Errors[0].Allowed, $"opens a job that no workshop has: {x.Errors[0].Message.TrimEnd('.')}");
            }
            catch (Exception x) when (x is JsonException or NotSupportedException)
            {
                throw Broken(seq, "as sent", "an event of this format", "cannot be read");
            }

            if (e.JobId != file.JobId) throw Broken(seq, "another job's", "an event of this job", "belongs to another job");
            if (e.OccurredAt.Year is < 2000 or > 2200 || e.RecordedAt.Year is < 2000 or > 2200) throw Broken(seq, e.RecordedAt.ToString("O"), "2000 to 2200", "has a time that cannot be");
            if (e.Seq != seq) throw Broken(seq, Figure.Of(e.Seq), Figure.Of(seq), "is out of order");
            if ((seq == 1) != (e.Event is JobOpened)) throw Broken(seq, e.Event.GetType().Name, "a job opens once, first", "is in the wrong place");
            read.Add((content, hash, e.Recorded()));
            previous = hash;
        }

        if (read.DistinctBy(r => r.Event.Id).Count() != read.Count) throw Broken(read.Count, "a repeated id", "ids that differ", "repeats an event id");
        try
        {
            // Whatever the screens will ask of it later is asked once before anything is stored.
            var state = JobState.Fold(read.Select(r => r.Event));
            RunSheets.Corner(state, Side.Left);
            RunSheets.Corner(state, Side.Right);
            JobRecord.Of(state);
            JobBenches.Retraction(state, Side.Left, null);
            JobBenches.Retraction(state, Side.Right, null);
            JobBenches.Fluid(state, null, false);
            BoardCard.Of(file.JobId, state);
        }
        catch (Exception x) when (x is not OutOfMemoryException)
        {
            throw Broken(read.Count, "as sent", "a job that can be shown", "or one before it holds figures that cannot be");
        }

        return new(file.JobId, events.Import(file.JobId, read, Pictures(file, read.Select(r => r.Event)), by), read.Count);
    }

    private static List<Picture> Pictures(JobFile file, IEnumerable<RecordedEvent> read)
    {
        var sent = (file.Attachments ?? []).DistinctBy(a => a.Sha256).ToDictionary(a => a.Sha256, StringComparer.Ordinal);
        List<Picture> pictures = [];
        foreach (var (seq, named) in read.Where(e => e.Event is INamesBytes).Select(e => (e.Seq, (INamesBytes)e.Event)))
        {
            var sha = named.Sha256;
            if (!sent.TryGetValue(sha, out var attachment)) throw Broken(seq, Figure.Shorten(sha), "an attachment of that hash", $"names a {named.Kind} that is not in the file");
            var picture = Picture.Of(attachment.Content);
            if (picture.Sha256 != sha) throw Broken(seq, Figure.Shorten(picture.Sha256), sha, $"names a {named.Kind} that is not the one in the file");
            if (!picture.LooksLike(named.MediaType) || attachment.Type != named.MediaType || picture.Content.Length > Picture.MostBytes)
                throw Broken(seq, Figure.Shorten(attachment.Type), $"{named.MediaType} of at most {Picture.MostBytes} bytes", $"names a {named.Kind} that is none of ours");
            pictures.Add(picture);
        }

        return pictures;
    }

    private static InputException Broken(int seq, string value, string allowed, string says) =>
        new(new InputError($"events[{seq}]", value, allowed, $"Event {seq} {says}. Nothing was stored."));
}
