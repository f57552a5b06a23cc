using System.Runtime.InteropServices;

namespace Formatum.Imaging;

/// <summary>Which files are opened as pictures: regular ones, at the very place they were linked.</summary>
public static partial class PictureFile
{
    /// <summary>
    /// Whether a file is there, is a regular one, and no part of its path is a symbolic link. Pictures are linked by their real path, so a link on the way came
    /// later, and may lead anywhere.
    /// </summary>
    /// <param name="path">A full path.</param>
    public static bool IsThere(string path) => IsRegular(path) && RealPathOf(path) == path;

    /// <summary>The path with every symbolic link on the way followed.</summary>
    /// <exception cref="IOException">A link leads to itself.</exception>
    public static string RealPathOf(string path)
    {
        string real = Path.GetPathRoot(path)!;
        foreach (string step in path[real.Length..].Split(Path.DirectorySeparatorChar, StringSplitOptions.RemoveEmptyEntries))
        {
            string next = Path.Combine(real, step);
            FileSystemInfo info = Directory.Exists(next) ? new DirectoryInfo(next) : new FileInfo(next);
            real = info.LinkTarget is null ? next : info.ResolveLinkTarget(returnFinalTarget: true)?.FullName ?? next;
        }
        return real;
    }

    /// <summary>Neither a folder nor a pipe, socket or device, which may never end. Symbolic links are followed.</summary>
    public static bool IsRegular(string path)
    {
        const int AtCurrentFolder = -100, TypeOnly = 1, ModeAt = 28, Size = 256, TypeMask = 0xF000, Regular = 0x8000;
        Span<byte> answer = stackalloc byte[Size];
        if (StatX(AtCurrentFolder, path, 0, TypeOnly, ref MemoryMarshal.GetReference(answer)) != 0) return false;
        return (BitConverter.ToUInt16(answer[ModeAt..]) & TypeMask) == Regular;
    }

    /// <summary>statx(2) of Linux: its answer is laid out alike on every processor.</summary>
    [LibraryImport("libc", EntryPoint = "statx", StringMarshalling = StringMarshalling.Utf8)]
    private static partial int StatX(int folder, string path, int flags, uint mask, ref byte answer);
}
