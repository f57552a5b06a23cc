using Formatum.Output.Tickets;

namespace Formatum.Web.Outputs;

/// <summary>Lays an output and its ticket in a folder.</summary>
internal static class FolderDelivery
{
    /// <summary>Two of the same name may come at once.</summary>
    private static readonly SemaphoreSlim OneByOne = new(1);

    /// <summary>First the file, and when it is whole the ticket: whoever watches the folder for tickets finds both.</summary>
    /// <returns>What came of it.</returns>
    public static async Task<Handover> LayAsync(Handover handover, JobTicket ticket, Stream content, string folder, CancellationToken cancel)
    {
        string half = Path.Combine(folder, $".{handover.Id}.half");
        string? laid = null;
        try
        {
            await using (var file = new FileStream(half, FileMode.CreateNew)) await content.CopyToAsync(file, cancel);
            await OneByOne.WaitAsync(cancel);
            try
            {
                string name = Free(folder, ticket.File.Name);
                File.Move(half, Path.Combine(folder, name));
                laid = Path.Combine(folder, name);
                // From here on it is done to its end: a file without its ticket is no job.
                await File.WriteAllBytesAsync(half, (ticket with { File = ticket.File with { Name = name } }).Write(), CancellationToken.None);
                File.Move(half, Path.Combine(folder, Path.GetFileNameWithoutExtension(name) + JobTicket.Ending));
                return handover with { State = HandoverState.Laid, Job = name };
            }
            finally
            {
                OneByOne.Release();
            }
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            if (laid is not null) Remove(laid);
            return handover with
            {
                State = HandoverState.Failed,
                Reasons = [$"It could not be laid in the folder: {(e is DirectoryNotFoundException ? "the folder is gone" : e is UnauthorizedAccessException
                    ? "the server may not write there" : "its disk is full or gone")}. Tell whoever runs the server; then try again."],
            };
        }
        finally
        {
            Remove(half);
        }
    }

    private static void Remove(string path)
    {
        try
        {
            File.Delete(path);
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            // The folder went: there is nothing to remove.
        }
    }

    /// <summary>A name under which neither a file nor a ticket lies there yet: nothing is replaced that somebody may be about to take.</summary>
    private static string Free(string folder, string name)
    {
        string plain = Path.GetFileNameWithoutExtension(name), ending = Path.GetExtension(name);
        for (int i = 1; ; i++)
        {
            string tried = i == 1 ? plain : FormattableString.Invariant($"{plain} {i}");
            if (!File.Exists(Path.Combine(folder, tried + ending)) && !File.Exists(Path.Combine(folder, tried + JobTicket.Ending))) return tried + ending;
        }
    }
}
