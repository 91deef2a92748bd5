using System.Security.Cryptography;
using System.Text;

namespace PatientPawl.Data;

/// <summary>
/// Seals by this workshop's key (HMAC, RFC 2104, over SHA-256): whoever changes an event and makes its chain anew, without the key, is seen.
/// Who owns the files owns the key too, and can forge.
/// </summary>
public sealed class Seals
{
    private readonly byte[] _key;

    /// <summary>Reads the key of the folder, or makes it: 32 bytes in a file that only its owner reads.</summary>
    public Seals(string folder)
    {
        var path = Path.Combine(folder, "seal.key");
        if (!File.Exists(path))
        {
            var fresh = RandomNumberGenerator.GetBytes(32);
            var options = new FileStreamOptions { Mode = FileMode.CreateNew, Access = FileAccess.Write };
            if (!OperatingSystem.IsWindows()) options.UnixCreateMode = UnixFileMode.UserRead | UnixFileMode.UserWrite;
            using var file = new FileStream(path, options);
            file.Write(fresh);
            file.Flush(flushToDisk: true);
        }

        _key = File.ReadAllBytes(path);
        if (_key.Length != 32) throw new FolderException("The file seal.key is not this workshop's key: put it back from the backup. Without it no record can be verified.");
    }

    /// <summary>The seal of an event: over the job, its place and the chain's hash, which holds every byte before it.</summary>
    public byte[] Of(Guid jobId, int seq, string hash) => HMACSHA256.HashData(_key, Encoding.ASCII.GetBytes($"{jobId:D} {seq} {hash}"));

    /// <summary>True when it is the seal of that event.</summary>
    public bool Fits(Guid jobId, int seq, string hash, byte[] seal) => CryptographicOperations.FixedTimeEquals(Of(jobId, seq, hash), seal);
}

/// <summary>Whether a job's log is what was stored.</summary>
/// <param name="JobId">The job.</param>
/// <param name="Events">How many events there are.</param>
/// <param name="FirstWrong">The first event that differs; null when none does.</param>
/// <param name="Says">In words.</param>
public sealed record LogCheck(Guid JobId, int Events, int? FirstWrong, string Says)
{
    /// <summary>True when every event is what was stored.</summary>
    public bool Verified => FirstWrong is null;
}
