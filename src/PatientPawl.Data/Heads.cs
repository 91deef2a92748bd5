using System.Globalization;

namespace PatientPawl.Data;

/// <summary>
/// How far each job's log goes, in a file beside the database and at most a second behind it: a database that is shorter than this was cut,
/// or put back from an older day past this program. A line each; lines are only added, and the file is written anew as it is opened.
/// </summary>
public sealed class Heads : IDisposable
{
    private static readonly TimeSpan Behind = TimeSpan.FromMilliseconds(500);

    private readonly string _path;
    private readonly Lock _lock = new();
    private readonly Dictionary<Guid, int> _versions = [];
    private readonly Dictionary<Guid, int> _pending = [];
    private readonly Timer _timer;

    /// <summary>Reads what was noted so far.</summary>
    public Heads(string folder)
    {
        _path = Path.Combine(folder, "heads");
        if (File.Exists(_path))
        {
            foreach (var line in File.ReadLines(_path))
            {
                // The last line may be half there: the machine stopped while it was written.
                var words = line.Split(' ');
                if (words.Length == 2 && Guid.TryParse(words[0], out var id) && int.TryParse(words[1], NumberStyles.None, CultureInfo.InvariantCulture, out var version))
                    _versions[id] = Math.Max(version, _versions.GetValueOrDefault(id));
            }

            WriteAnew();
        }

        _timer = new(_ => Flush(), null, Behind, Behind);
    }

    /// <summary>How far a job's log was seen to go; 0 where it was never noted.</summary>
    public int Of(Guid jobId)
    {
        lock (_lock) return _versions.GetValueOrDefault(jobId);
    }

    /// <summary>Every job that was noted.</summary>
    public IReadOnlyList<Guid> Jobs()
    {
        lock (_lock) return [.. _versions.Keys];
    }

    /// <summary>Notes how far a job's log goes now.</summary>
    public void Note(Guid jobId, int version)
    {
        lock (_lock)
        {
            if (_versions.GetValueOrDefault(jobId) >= version) return;
            _versions[jobId] = _pending[jobId] = version;
        }
    }

    /// <summary>Notes nothing of a job any more: it was deleted, as only practice is.</summary>
    public void Forget(Guid jobId)
    {
        lock (_lock)
        {
            _versions.Remove(jobId);
            _pending.Remove(jobId);
            WriteAnew();
        }
    }

    /// <summary>Writes what is still to be written. What cannot be written now is tried again.</summary>
    public void Flush()
    {
        lock (_lock)
        {
            if (_pending.Count == 0) return;
            try
            {
                File.AppendAllLines(_path, _pending.Select(Line));
                _pending.Clear();
            }
            catch (Exception e) when (e is IOException or UnauthorizedAccessException)
            {
                // The database says what is wrong with the folder; nothing here may stop it.
            }
        }
    }

    /// <summary>Writes what is left.</summary>
    public void Dispose()
    {
        _timer.Dispose();
        Flush();
    }

    private void WriteAnew()
    {
        try
        {
            var fresh = _path + ".part";
            File.WriteAllLines(fresh, _versions.Select(Line));
            File.Move(fresh, _path, overwrite: true);
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            // The old one stands: it is only longer.
        }
    }

    private static string Line(KeyValuePair<Guid, int> head) => $"{head.Key:D} {head.Value.ToString(CultureInfo.InvariantCulture)}";
}
