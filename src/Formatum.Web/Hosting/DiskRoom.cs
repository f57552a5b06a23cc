namespace Formatum.Web.Hosting;

/// <summary>There is too little room on the disk; what was to be written was not.</summary>
public sealed class NoRoom(long left) : IOException($"The server's disk is full: it has {left >> 20} MB left, which edits are to have. Make room (the shelf " +
    "shows what can go), or tell whoever runs the server; then do it again.");

/// <summary>Room on the disk of the data folder. What is large is refused before the last of it is gone, so that edits can still be stored.</summary>
public sealed class DiskRoom(ServerOptions options)
{
    /// <summary>So many bytes are left for edits, and of a small disk this share.</summary>
    private const long Reserve = 200L << 20, ShareOfSmall = 20;

    private DriveInfo Drive => new(options.DataFolder);

    /// <summary>Bytes that pictures and outputs may still take; negative where they took too many.</summary>
    public long ForLargeFiles
    {
        get
        {
            var drive = Drive;
            return drive.AvailableFreeSpace - Math.Min(Reserve, drive.TotalSize / ShareOfSmall);
        }
    }

    /// <summary>Why so many bytes cannot be written; null where they can.</summary>
    public NoRoom? Lacks(long bytes) => bytes > ForLargeFiles ? new NoRoom(Drive.AvailableFreeSpace) : null;
}
