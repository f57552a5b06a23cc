using System.Globalization;

namespace Formatum.Storage;

/// <summary>
/// The data folder, held by this process alone. The operating system keeps the lock and lets go of it when the process ends, however it ends; so a server that
/// was killed leaves nothing behind that keeps the next one out.
/// </summary>
public sealed class DataFolder : IDisposable
{
    private const string LockName = "formatum.lock", HolderName = "formatum.holder";

    private readonly FileStream _lock;

    private DataFolder(FileStream held) => _lock = held;

    /// <summary>Takes the folder, and makes it where it is not there yet.</summary>
    /// <param name="path">The folder.</param>
    /// <param name="holder">What is told of this process to another that wants the folder too: "the server on port 5480".</param>
    /// <exception cref="StartRefused">Another process holds it, or it cannot be written to.</exception>
    public static DataFolder Take(string path, string holder)
    {
        try
        {
            Directory.CreateDirectory(path);
            // What is opened for writing without sharing is locked by flock; only the lock's own file is, so that who holds it can be read.
            var held = new FileStream(Path.Combine(path, LockName), FileMode.OpenOrCreate, FileAccess.ReadWrite, FileShare.None);
            try
            {
                Probe(path, holder);
            }
            catch
            {
                held.Dispose();
                throw;
            }
            return new(held);
        }
        catch (IOException e) when (IsHeld(path))
        {
            throw new StartRefused($"The data folder {path} is in use by {HolderOf(path)}. Stop it first, or name another folder with --data.", e);
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            throw new StartRefused($"The data folder {path} cannot be written to: {e.Message} Make room or give this user the right to write there, or name " +
                "another with --data.", e);
        }
    }

    /// <summary>Writes down who holds the folder, which shows on the way that it can be written to.</summary>
    private static void Probe(string path, string holder) => File.WriteAllText(Path.Combine(path, HolderName),
        string.Create(CultureInfo.InvariantCulture, $"{holder}, process {Environment.ProcessId}, since {DateTime.UtcNow:yyyy-MM-dd HH:mm} UTC"));

    private static bool IsHeld(string path)
    {
        try
        {
            using var probe = new FileStream(Path.Combine(path, LockName), FileMode.Open, FileAccess.ReadWrite, FileShare.None);
            return false;
        }
        catch (IOException e) when (e is not FileNotFoundException and not DirectoryNotFoundException)
        {
            return (e.HResult & 0xffff) == 11;
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            return false;
        }
    }

    /// <summary>Who holds a folder, in words.</summary>
    public static string HolderOf(string path)
    {
        try
        {
            return File.ReadAllText(Path.Combine(path, HolderName)) is { Length: > 0 } holder ? holder : "another server";
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            return "another server";
        }
    }

    public void Dispose() => _lock.Dispose();
}
